<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\LedgerEntry;
use App\Models\Person;
use App\Platform\SchoolDay;
use Generator;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** A ledger as a sheet: an entry a row, or a field of a record a row. */
final class LedgerSheet
{
    private const CHUNK = 500;

    public const ENTRIES = [
        'Number',
        'When',
        'Who',
        'Area',
        'What',
        'In a sentence',
        'Records',
        'Undone',
        'By',
        'Stayed',
    ];

    public const RECORDS = ['Number', 'When', 'Who', 'What', 'Kind', 'Record', 'Field', 'Before', 'After', 'Why'];

    /**
     * @param  Builder<LedgerEntry>  $entries newest first
     * @return Generator<int, list<string>>
     */
    public static function entries(Builder $entries, string $schoolId): Generator
    {
        foreach (self::chunks($entries) as $chunk) {
            $names = self::people($chunk->pluck('actor_id')->concat($chunk->pluck('undone_by')));
            foreach ($chunk as $entry) {
                yield [
                    (string) $entry->seq,
                    self::moment($schoolId, $entry->made_at),
                    self::who($entry, $names),
                    $entry->action()->area()?->label() ?? '',
                    $entry->title,
                    $entry->sentence,
                    (string) $entry->changes_count,
                    $entry->undone_at === null ? '' : self::moment($schoolId, $entry->undone_at),
                    $names[(string) $entry->undone_by] ?? '',
                    implode('; ', $entry->kept ?? []),
                ];
            }
        }
    }

    /**
     * @param  Builder<LedgerEntry>  $entries newest first
     * @return Generator<int, list<string>>
     */
    public static function records(Builder $entries, string $schoolId): Generator
    {
        foreach (self::chunks($entries) as $chunk) {
            $names = self::people($chunk->pluck('actor_id'));
            $wider = array_flip(
                DB::table('ledger_schools')
                    ->whereIn('entry_seq', $chunk->pluck('seq'))
                    ->where('school_id', '!=', $schoolId)
                    ->distinct()
                    ->pluck('entry_seq')
                    ->all(),
            );
            foreach ($chunk as $entry) {
                $head = [
                    (string) $entry->seq,
                    self::moment($schoolId, $entry->made_at),
                    self::who($entry, $names),
                    $entry->title,
                ];
                foreach (LedgerChange::of($entry->seq, isset($wider[$entry->seq]) ? [$schoolId] : null) as $change) {
                    foreach ($change->fields === [] ? [new FieldChange('', '', '')] : $change->fields as $field) {
                        yield [
                            ...$head,
                            $change->what,
                            $change->record,
                            $field->field,
                            $field->before,
                            $field->after,
                            $change->reason,
                        ];
                    }
                }
            }
        }
    }

    /**
     * @param  Builder<LedgerEntry>  $entries
     * @return Generator<int, Collection<int, LedgerEntry>>
     */
    private static function chunks(Builder $entries): Generator
    {
        $before = PHP_INT_MAX;
        do {
            $chunk = $entries->clone()->where('seq', '<', $before)->limit(self::CHUNK)->get();
            $before = (int) $chunk->last()?->seq;
            yield $chunk->toBase();
        } while ($chunk->count() === self::CHUNK);
    }

    /**
     * @param  Collection<int, string|null>  $ids
     * @return array<string, string>
     */
    private static function people(Collection $ids): array
    {
        return Person::query()
            ->whereIn('id', $ids->filter()->unique())
            ->get()
            ->mapWithKeys(fn(Person $p): array => [$p->id => $p->fullName()])
            ->all();
    }

    /** @param  array<string, string>  $names */
    private static function who(LedgerEntry $entry, array $names): string
    {
        return $names[(string) $entry->actor_id] ?? 'Vantrel';
    }

    /** As the clocks of the school say it. */
    private static function moment(string $schoolId, string $instant): string
    {
        return str_replace('T', ' ', SchoolDay::local($schoolId, $instant));
    }
}
