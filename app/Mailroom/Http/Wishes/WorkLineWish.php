<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Mailroom\WorkLine;

/** Work in one line. */
final readonly class WorkLineWish
{
    public function __construct(#[Must('max:' . WorkLine::MOST)] public string $text) {}
}
