<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Models\PrintRun;
use App\Models\PrintState;
use App\Platform\Instant;
use App\Platform\Resource;

/** A print on its way, or kept for a day. */
final readonly class PrintView extends Resource
{
    /**
     * @param  int  $done how many stand, of {@see $total}
     * @param  string|null  $problem why it failed
     * @param  string|null  $field what the problem is about
     */
    public function __construct(
        public string $id,
        public string $what,
        public PrintState $state,
        public int $done,
        public int $total,
        public ?string $problem,
        public ?string $field,
        public string $madeAt,
        public string $expiresAt,
    ) {}

    public static function of(PrintRun $run): self
    {
        return new self(
            $run->id,
            $run->what,
            $run->state,
            $run->done,
            $run->total,
            $run->problem,
            $run->field,
            Instant::iso($run->made_at),
            Instant::iso($run->expires_at),
        );
    }
}
