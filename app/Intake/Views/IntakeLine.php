<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Models\Intake;
use App\Platform\Instant;
use App\Platform\Resource;

/** One list among those brought in. */
final readonly class IntakeLine extends Resource
{
    /** @param  array<string, int>  $verdicts */
    public function __construct(
        public string $id,
        public string $title,
        public string $state,
        public ?string $message,
        public int $done,
        public int $total,
        public array $verdicts,
        public string $madeAt,
    ) {}

    public static function of(Intake $intake): self
    {
        return new self(
            $intake->id,
            $intake->title,
            $intake->state,
            $intake->message,
            $intake->done,
            $intake->total,
            $intake->summary['verdicts'] ?? [],
            Instant::iso($intake->made_at),
        );
    }
}
