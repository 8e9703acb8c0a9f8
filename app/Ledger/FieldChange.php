<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Platform\Resource;
use Vantrel\Core\Roll\EditPerson;
use Vantrel\Core\Values\GradeLevel;

/** What a field of a record was, and what it became; '' for nothing. */
final readonly class FieldChange extends Resource
{
    /** What is there for the sake of other records, or follows from the fields that are shown. */
    private const HIDDEN = '/_id$|_hash$|^(search_name|kind|code|merged_into|carried_from|email_by|email_at)$/';

    public function __construct(public string $field, public string $before, public string $after) {}

    /**
     * @param  string  $before image of a record in the ledger
     * @param  string  $after of the same
     * @return list<self> the fields that somebody sees, and that have become something else
     */
    public static function between(string $before, string $after): array
    {
        $was = (array) json_decode($before, true);
        $is = (array) json_decode($after, true);
        $changes = [];
        foreach (array_keys($was + $is) as $column) {
            $sides = [self::words($column, $was[$column] ?? null), self::words($column, $is[$column] ?? null)];
            if (preg_match(self::HIDDEN, (string) $column) === 0 && $sides[0] !== $sides[1]) {
                $changes[] = new self(EditPerson::WORDS[$column] ?? str_replace('_', ' ', (string) $column), ...$sides);
            }
        }

        return $changes;
    }

    private static function words(int|string $column, mixed $value): string
    {
        return match (true) {
            !is_scalar($value) => '',
            $value === '(secret)' => 'a new one',
            $column === 'grade' => GradeLevel::read((string) $value)?->short() ?? (string) $value,
            default => (string) $value,
        };
    }
}
