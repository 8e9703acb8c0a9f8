<?php

declare(strict_types=1);

namespace App\Models;

use App\Ledger\WriteGuard;
use Illuminate\Database\Eloquent\Model;
use LogicException;

/** For models of tables that plans change: they are read, never saved. */
trait WrittenByLedger
{
    public static function bootWrittenByLedger(): void
    {
        $refuse = function (Model $model): void {
            if (!WriteGuard::isOpen()) {
                throw new LogicException("Only the ledger writes {$model->getTable()}. Make a plan and apply it.");
            }
        };
        static::saving($refuse);
        static::deleting($refuse);
    }
}
