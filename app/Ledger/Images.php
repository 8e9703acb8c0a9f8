<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\LazyCollection;
use stdClass;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Records\Entity;

/**
 * What an entry wrote, as the ledger keeps it: read in portions, since one entry can hold a hundred thousand records.
 */
final class Images
{
    private const PORTION = 5000;

    /** @return LazyCollection<int, Change> in the order it was written in */
    public static function of(int $seq): LazyCollection
    {
        return DB::table('ledger_changes')
            ->where('entry_seq', $seq)
            ->orderBy('id')
            ->lazyById(self::PORTION, 'id')
            ->map(self::change(...));
    }

    /** @return LazyCollection<int, Change> the last first */
    public static function backwards(int $seq): LazyCollection
    {
        return DB::table('ledger_changes')
            ->where('entry_seq', $seq)
            ->orderByDesc('id')
            ->lazyByIdDesc(self::PORTION, 'id')
            ->map(self::change(...));
    }

    private static function change(stdClass $row): Change
    {
        return new Change(
            Entity::from($row->entity),
            $row->row_id,
            $row->was_version === null ? null : (int) $row->was_version,
            self::values($row->before),
            self::values($row->after),
            $row->reason,
        );
    }

    /** @return array<string, string|int|null> */
    private static function values(string $image): array
    {
        return (array) json_decode($image, true, 16, JSON_THROW_ON_ERROR);
    }
}
