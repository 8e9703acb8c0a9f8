<?php

declare(strict_types=1);

namespace App\Ledger\Commands;

use App\Ledger\Ledger;
use App\Ledger\UndoFirst;
use App\Models\LedgerEntry;
use Illuminate\Console\Command;
use Vantrel\Core\Plan\Refusal;

final class UndoCommand extends Command
{
    protected $signature =
        'vantrel:undo {entry : id of the ledger entry} {--together : undo with it, newest first, the later ' .
        'entries that hold what would stay}';

    protected $description = 'Undo a ledger entry and list what has changed since and stays';

    public function handle(Ledger $ledger): int
    {
        $entry = LedgerEntry::query()->where('id', (string) $this->argument('entry'))->first();
        if ($entry === null) {
            $this->error('There is no such entry in the ledger.');

            return self::INVALID;
        }
        try {
            $first = $this->option('together')
                ? array_map(fn(UndoFirst $f): string => $f->id, $ledger->outlook($entry, true)->first)
                : [];
            $undone = $ledger->undo($entry, null, $first);
        } catch (Refusal $e) {
            $this->error($e->getMessage());

            return self::FAILURE;
        }
        $this->info("Undone: $undone->title");
        foreach ($undone->kept ?? [] as $kept) {
            $this->line("Stays: $kept");
        }

        return self::SUCCESS;
    }
}
