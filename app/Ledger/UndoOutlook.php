<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Platform\Resource;

/** What undoing an entry would come to, before it is done. */
final readonly class UndoOutlook extends Resource
{
    /**
     * @param  string  $fingerprint what was looked at: sent with the undo, it is done only if it still comes to this
     * @param  int  $goesBack records put back as they were
     * @param  int  $staysCount records that stay
     * @param  list<string>  $stays which, and why; the first by name
     * @param  list<string>  $lost secrets that cannot come back
     * @param list<UndoFirst> $first later entries that hold what would stay, newest first: undone with this one, all
     *     goes back
     * @param  bool  $blocked whether it can only be undone together with those
     */
    public function __construct(
        public string $id,
        public string $fingerprint,
        public int $goesBack,
        public int $staysCount,
        public array $stays,
        public array $lost,
        public array $first,
        public bool $blocked,
    ) {}
}
