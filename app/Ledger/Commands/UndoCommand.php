<?php

declare(strict_types=1);

namespace App\Ledger\Commands;

use App\Ledger\Ledger;
use App\Models\LedgerEntry;
use Illuminate\Console\Command;
use Vantrel\Core\Plan\Refusal;

final class UndoCommand extends Command
{
    protected $signature = 'vantrel:undo {entry : id of the ledger entry}';

    protected $description = 'Undo a ledger entry and list what has changed since and stays';

    public function handle(Ledger $ledger): int
    {
        $entry = LedgerEntry::query()->where('id', (string) $this->argument('entry'))->first();
        if ($entry === null) {
            $this->error('There is no such entry in the ledger.');

            return self::INVALID;
        }
        try {
            $undone = $ledger->undo($entry, null);
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
