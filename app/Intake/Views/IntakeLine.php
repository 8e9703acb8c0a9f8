<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Models\Intake;
use App\Models\IntakeState;
use App\Platform\Instant;
use App\Platform\Resource;

/** One list among those brought in. */
final readonly class IntakeLine extends Resource
{
    /**
     * @param  int  $total of what is being done: rows to plan, records to write
     * @param  int  $rows of the list
     * @param  array<string, int>  $verdicts
     */
    public function __construct(
        public string $id,
        public string $title,
        public IntakeState $state,
        public ?string $message,
        public int $done,
        public int $total,
        public int $rows,
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
            $intake->summary['rows'] ?? $intake->total,
            $intake->summary['verdicts'] ?? [],
            Instant::iso($intake->made_at),
        );
    }
}
