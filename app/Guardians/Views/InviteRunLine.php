<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Models\InviteRun;
use App\Models\PrintState;
use App\Platform\Instant;
use App\Platform\Resource;

/** Invitations on their way. */
final readonly class InviteRunLine extends Resource
{
    /** @param  string  $said what came of it, once it is done */
    public function __construct(
        public string $id,
        public PrintState $state,
        public int $done,
        public int $total,
        public string $said,
        public string $madeAt,
    ) {}

    public static function of(InviteRun $run): self
    {
        return new self(
            $run->id,
            $run->state,
            $run->done,
            $run->total,
            (string) $run->said,
            Instant::iso($run->made_at),
        );
    }
}
