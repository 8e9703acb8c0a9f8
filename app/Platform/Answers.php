<?php

declare(strict_types=1);

namespace App\Platform;

use Attribute;

/** Which resource a route answers with; null for no content, 'file' for a download. */
#[Attribute(Attribute::TARGET_METHOD)]
final readonly class Answers
{
    /** @param  class-string|'file'|null  $with */
    public function __construct(public ?string $with, public string $summary) {}
}
