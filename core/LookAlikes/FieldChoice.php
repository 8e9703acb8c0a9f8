<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Values\Language;

/** Which value of each field stays when accounts become one, and why. */
final class FieldChoice
{
    private const FIELDS = [
        'school_id' => 'School',
        'given_name' => 'Given name',
        'preferred_name' => 'Goes by',
        'family_name' => 'Family name',
        'birth_date' => 'Birth date',
        'number' => 'Student number',
        'grade' => 'Grade',
        'email' => 'E-mail',
        'phone' => 'Telephone',
        'language' => 'Language',
    ];

    /** Of a student: given by the school they are at. */
    private const OF_SCHOOL = ['number', 'grade'];

    /**
     * @param  non-empty-list<Person>  $drops
     * @param  array<string, string>  $picks
     * @return list<MergedField> what stays of each, written into the plan
     */
    public static function write(PlanBuilder $plan, Snapshot $snapshot, Person $keep, array $drops, array $picks): array
    {
        $accounts = [$keep, ...$drops];
        $stays = $fields = [];
        $school = self::school($snapshot, $accounts, $picks['school_id'] ?? '');
        foreach (self::FIELDS as $column => $label) {
            if ($column === 'school_id' && $school === null) {
                continue;
            }
            [$from, $why] = match (true) {
                $school !== null && $column === 'school_id' => $school,
                $school !== null && in_array($column, self::OF_SCHOOL, true) && !isset($picks[$column])
                    => self::staying($column, self::at($school[0]->schoolId(), $accounts), ''),
                default => self::staying($column, $accounts, $picks[$column] ?? ''),
            };
            $stays[$column] = $value = $from->field($column);
            if ($column === 'email' && $from !== $keep) {
                // What is known of an address goes with it.
                foreach (['email_state', 'email_by', 'email_at'] as $of) {
                    $stays[$of] = $from->field($of);
                }
                $stays['email_state'] ??= 'claimed';
            }
            $values = [];
            $word = fn(?string $value): string => match ($column) {
                'school_id' => $snapshot->schools[(string) $value] ?? '',
                'language' => Language::read((string) $value)?->name() ?? '',
                default => (string) $value,
            };
            foreach ($accounts as $account) {
                $values[$account->id] = $word($account->field($column));
            }
            $fields[] = $field = new MergedField($column, $label, $values, $word($value), $why);
            $plan->row(
                new PlanRow(count($fields), $field->agrees() ? Verdict::Same : Verdict::Update, [
                    'Field' => Cell::same($label),
                    'Stays' => new Cell($values[$keep->id], $field->stays),
                    count($drops) > 1 ? 'Other accounts' : 'Other account' => Cell::same(
                        implode(', ', array_filter(array_slice($values, 1), fn(string $v): bool => $v !== '')),
                    ),
                ]),
            );
        }
        foreach (['given_name', 'family_name'] as $column) {
            $stays[$column] ??= '';
        }
        $stays['search_name'] = (new PersonName($stays['given_name'], $stays['family_name']))->searchKey();
        $active = array_filter($accounts, fn(Person $p): bool => $p->state() === PersonState::Active);
        $stays['state'] = $active === [] ? $keep->state()->value : PersonState::Active->value;
        $plan->update(
            $keep,
            $stays,
            'merged with ' . Words::some(array_map(fn(Person $p): string => $p->fullName(), $drops)),
        );

        return $fields;
    }

    /**
     * Of accounts of several schools, the one whose school the person is at: the one that came into a section last, as
     * who has changed school has.
     *
     * @param  non-empty-list<Person>  $accounts
     * @return array{Person, string}|null the account and why; null where all are of one school
     */
    private static function school(Snapshot $snapshot, array $accounts, string $picked): ?array
    {
        if (count(array_unique(array_map(fn(Person $p): string => $p->schoolId(), $accounts))) === 1) {
            return null;
        }
        $came = [];
        foreach ($accounts as $account) {
            if ($account->id === $picked) {
                return [$account, 'chosen'];
            }
            $came[$account->id] = '';
            foreach ($snapshot->where(Enrollment::class, 'person_id', $account->id) as $enrollment) {
                if ($enrollment->endsOn() === null) {
                    $came[$account->id] = max($came[$account->id], $enrollment->beginsOn());
                }
            }
        }
        usort(
            $accounts,
            fn(Person $a, Person $b): int => [$b->state() === PersonState::Active ? 1 : 0, $came[$b->id], $b->id] <=> [
                $a->state() === PersonState::Active ? 1 : 0,
                $came[$a->id],
                $a->id,
            ],
        );
        $why = match (true) {
            $accounts[0]->state() !== $accounts[1]->state() => 'still there',
            $came[$accounts[0]->id] !== $came[$accounts[1]->id] => 'came into a section there last',
            default => 'of the account made last',
        };

        return [$accounts[0], $why];
    }

    /**
     * @param  non-empty-list<Person>  $accounts
     * @return non-empty-list<Person> those of the school: what another one gave is not theirs any more
     */
    private static function at(string $schoolId, array $accounts): array
    {
        $at = array_values(array_filter($accounts, fn(Person $p): bool => $p->schoolId() === $schoolId));

        return $at === [] ? $accounts : $at;
    }

    /**
     * Never a blank over a value; a full name over one cut short; else the survivor's own.
     *
     * @param  non-empty-list<Person>  $accounts the survivor first
     * @return array{Person, string} whose value stays, and why; no reason where there is nothing to choose
     */
    private static function staying(string $column, array $accounts, string $picked): array
    {
        $has = array_values(array_filter($accounts, fn(Person $p): bool => (string) $p->field($column) !== ''));
        $first = $has[0] ?? $accounts[0];
        if (count(array_unique(array_map(fn(Person $p): string => (string) $p->field($column), $has))) < 2) {
            return [
                $first,
                count($has) < count($accounts) && $has !== [] && $first !== $accounts[0] ? 'all there is' : '',
            ];
        }
        foreach ($has as $account) {
            if ($account->id === $picked) {
                return [$account, 'chosen'];
            }
        }
        $stays = $first;
        foreach (in_array($column, ['given_name', 'family_name'], true) ? $has : [] as $account) {
            $longer = mb_strtolower((string) $account->field($column));
            $shorter = mb_strtolower((string) $stays->field($column));
            if ($longer !== $shorter && str_starts_with($longer, $shorter)) {
                $stays = $account;
            }
        }

        return [
            $stays,
            match (true) {
                $stays !== $first => 'the fuller name',
                $stays === $accounts[0] => 'of the account that stays',
                default => 'of the account used next most',
            },
        ];
    }
}
