<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Models\Import;
use App\Platform\Instant;
use App\Platform\Resource;

/** One list among those brought in. */
final readonly class ImportLine extends Resource
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

    public static function of(Import $import): self
    {
        return new self(
            $import->id,
            $import->title,
            $import->state,
            $import->message,
            $import->done,
            $import->total,
            $import->summary['verdicts'] ?? [],
            Instant::iso($import->made_at),
        );
    }
}
