<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

use DateTimeImmutable;
use DateTimeZone;
use Exception;

/**
 * A filter of a collection: one comparison, or two joined by AND or OR.
 *
 *     filter  = term [ " AND " term | " OR " term ]
 *     term    = field predicate "'" value "'"
 *
 * Within a value, a quotation mark is written twice.
 */
final readonly class Filter
{
    private const TERM = "([A-Za-z][A-Za-z0-9]*(?:\\.[A-Za-z][A-Za-z0-9]*)?)\\s*(!=|>=|<=|=|>|<|~)\\s*'((?:[^']|'')*)'";

    /** @param  non-empty-list<Term>  $terms one or two */
    private function __construct(public array $terms, public bool $all) {}

    /**
     * @throws Fault naming what is not as it should be
     */
    public static function parse(string $text, Kind $kind): self
    {
        $term = self::TERM;
        if (preg_match("/^\\s*$term(?:\\s+(AND|OR)\\s+$term)?\\s*$/u", $text, $m) !== 1) {
            throw new Fault(
                CodeMinor::InvalidFilterField,
                'The filter cannot be read. Write it as: familyName=\'Haddad\' AND dateLastModified>\'2026-09-01\'.',
            );
        }
        $terms = [self::term($m[1], $m[2], $m[3], $kind)];
        if (isset($m[5], $m[6], $m[7])) {
            $terms[] = self::term($m[5], $m[6], $m[7], $kind);
        }

        return new self($terms, ($m[4] ?? 'AND') === 'AND');
    }

    /** As it is written in a request. */
    public function text(): string
    {
        return implode(
            $this->all ? ' AND ' : ' OR ',
            array_map(
                fn(Term $t): string => "$t->field$t->predicate'" . str_replace("'", "''", $t->value) . "'",
                $this->terms,
            ),
        );
    }

    /**
     * @param  callable(string): list<string>  $values of a field of the record
     */
    public function takes(callable $values): bool
    {
        foreach ($this->terms as $term) {
            if ($term->holds($values($term->field)) !== $this->all) {
                return !$this->all;
            }
        }

        return $this->all;
    }

    /** An instant as records have it: a day is its first moment, in UTC where no zone is named. */
    private static function instant(string $typed): string
    {
        $utc = new DateTimeZone('UTC');
        $pattern = '/^\d{4}-\d\d-\d\d(T\d\d:\d\d(:\d\d(\.\d{1,6})?)?(Z|[+-]\d\d:?\d\d)?)?$/';
        try {
            $at = preg_match($pattern, $typed) === 1 ? new DateTimeImmutable($typed, $utc) : null;
        } catch (Exception) {
            $at = null;
        }

        return $at?->setTimezone($utc)->format('Y-m-d\TH:i:s.v\Z') ??
            throw new Fault(
                CodeMinor::InvalidFilterField,
                "“{$typed}” is no instant. Write it as 2026-09-01T06:00:00.000Z.",
            );
    }

    private static function term(string $field, string $predicate, string $value, Kind $kind): Term
    {
        [$name, $inner] = explode('.', $field, 2) + [1 => ''];
        $of = $kind->fields()[$name] ?? null;
        $inside = match ($of?->type) {
            null => [],
            FieldType::Reference => ['sourcedId'],
            FieldType::Role => ['role', 'roleType'],
            FieldType::Identifier => ['identifier', 'type'],
            default => [''],
        };
        if (!in_array($inner, $inside, true)) {
            throw new Fault(CodeMinor::InvalidFilterField, "There is no field $field of $kind->value to filter by.");
        }

        $value = str_replace("''", "'", $value);

        return new Term($field, $predicate, $of?->type === FieldType::Instant ? self::instant($value) : $value);
    }
}
