<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use RuntimeException;

/** The records a plan was made from have changed since: nothing was written; make the plan again. */
final class StalePlan extends RuntimeException
{
    /**
     * @param  list<string>  $changed what changed, in words or as `table id`
     * @param  string  $said what is said of it, where it was no plan that was looked at
     */
    public function __construct(
        public readonly array $changed,
        string $said =
            'What this plan was made from has changed since. Nothing was written; look at the fresh plan ' .
                'and apply that.',
    ) {
        parent::__construct($said);
    }
}
