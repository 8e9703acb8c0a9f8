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
     * In the order they were written in, some at a time: a list may have changed a hundred thousand. Of an entry that
     * concerns several schools, those that concern any of some.
     *
     * @param  list<string>|null  $schools ids of these; null for all
     * @return Generator<int, self>
     */
    public static function of(int $seq, ?array $schools = null): Generator
    {
        $last = 0;
        do {
            $changes = DB::table('ledger_changes')
                ->where('entry_seq', $seq)
                ->where('id', '>', $last)
                ->orderBy('id')
                ->limit(self::CHUNK)
                ->get();
            $names = $homes = [];
            foreach ($changes->groupBy('entity') as $table => $group) {
                $ids = array_map(strval(...), array_values($group->pluck('row_id')->all()));
                $names[$table] = RecordNames::of((string) $table, $ids);
                $homes[$table] = $schools === null ? [] : Ownership::ofRows(Entity::from((string) $table), $ids);
            }
            foreach ($changes as $change) {
                $last = (int) $change->id;
                if (
                    $schools !== null &&
                    array_intersect($schools, [
                        $homes[$change->entity][$change->row_id] ?? '',
                        ...self::schoolsIn($change->before),
                        ...self::schoolsIn($change->after),
                    ]) === []
                ) {
                    continue;
                }
                yield new self(
                    RecordNames::kind(Entity::from($change->entity)),
                    $names[$change->entity][$change->row_id] ?? RecordNames::inImage($change->after),
                    FieldChange::between($change->before, $change->after),
                    $change->reason,
                );
            }
        } while ($changes->count() === self::CHUNK);
    }

    /** @return list<string> the school that an image names: where somebody was before, or is since */
    private static function schoolsIn(mixed $image): array
    {
        $values = is_string($image) ? json_decode($image, true) : null;

        return is_array($values) && is_string($values['school_id'] ?? null) ? [$values['school_id']] : [];
    }
}
