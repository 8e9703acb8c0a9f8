<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/**
 * A plan, and what its planner says it comes to: nobody takes a plan apart to learn what it does.
 *
 * @template-covariant R
 */
final readonly class Planned
{
    /** @param  R  $result */
    public function __construct(public Plan $plan, public mixed $result) {}
}
