<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\LedgerEntry;
use App\Platform\Instant;
use App\Platform\Resource;

/** One entry of the ledger, as a line. */
final readonly class LedgerLine extends Resource
{
    /**
     * @param  string|null  $undoUntil instant until which it can be undone, null where it cannot (any more)
     * @param  list<string>  $kept what an undo had to leave as it is
     */
    public function __construct(
        public string $id,
        public int $seq,
        public string $action,
        public string $title,
        public string $sentence,
        public int $changes,
        public string $actor,
        public string $madeAt,
        public ?string $undoneAt,
        public bool $canUndo,
        public bool $canRedo,
        public ?string $undoUntil,
        public array $kept,
    ) {}

    public static function of(LedgerEntry $entry, string $actor): self
    {
        $until = $entry->undoUntil()?->isFuture() === true ? $entry->undoUntil() : null;

        return new self(
            $entry->id,
            $entry->seq,
            $entry->action,
            $entry->title,
            $entry->sentence,
            $entry->changes_count,
            $actor,
            Instant::iso($entry->made_at),
            Instant::isoOrNull($entry->undone_at),
            $until !== null,
            $entry->redoUntil()?->isFuture() === true,
            Instant::isoOrNull($until?->format('Y-m-d H:i:s')),
            $entry->kept ?? [],
        );
    }
}
