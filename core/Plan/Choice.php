<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** One way to answer a question, with what it would do. */
final readonly class Choice
{
    public function __construct(public string $key, public string $label, public string $consequence = '')
    {
    }
}
