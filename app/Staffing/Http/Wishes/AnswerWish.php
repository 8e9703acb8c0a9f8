<?php

declare(strict_types=1);

namespace App\Staffing\Http\Wishes;

use App\Platform\Must;

/** Whether an invitation is accepted. */
final readonly class AnswerWish
{
    public function __construct(#[Must('in:accept,decline')] public string $answer) {}
}
