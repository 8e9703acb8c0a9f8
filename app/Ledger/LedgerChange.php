<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Platform\Resource;
use Generator;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\Entity;

/** One record an entry changed, in words. */
final readonly class LedgerChange extends Resource
{
    private const CHUNK = 500;

    /** @param  list<FieldChange>  $fields what of it became something else */
    public function __construct(
        public string $what,
        public string $record,
        public array $fields,
        public string $reason,
    ) {}

    /**
     * In the order they were written in, some at a time: a list may have changed a hundred thousand.
     *
     * @return Generator<int, self>
     */
    public static function of(int $seq): Generator
    {
        $last = 0;
        do {
            $changes = DB::table('ledger_changes')
                ->where('entry_seq', $seq)
                ->where('id', '>', $last)
                ->orderBy('id')
                ->limit(self::CHUNK)
                ->get();
            $names = [];
            foreach ($changes->groupBy('entity') as $table => $group) {
                $ids = array_map(strval(...), array_values($group->pluck('row_id')->all()));
                $names[$table] = RecordNames::of((string) $table, $ids);
            }
            foreach ($changes as $change) {
                yield new self(
                    RecordNames::kind(Entity::from($change->entity)),
                    $names[$change->entity][$change->row_id] ?? RecordNames::inImage($change->after),
                    FieldChange::between($change->before, $change->after),
                    $change->reason,
                );
                $last = (int) $change->id;
            }
        } while ($changes->count() === self::CHUNK);
    }
}
