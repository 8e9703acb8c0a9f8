<?php

declare(strict_types=1);

namespace App\Intake\Http\Wishes;

use App\Platform\Must;

/** Answers to questions of a list; an empty one takes it back. */
final readonly class AnswersWish
{
    /** @param  array<string, string|null>  $answers */
    public function __construct(#[Must('min:1|max:5000', each: 'nullable|string|max:80')] public array $answers) {}
}
