<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

/** One rule for a chosen code, whether it holds, and why not. */
final readonly class CodeRule
{
    public function __construct(public string $rule, public bool $holds, public string $why) {}
}
