<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** Columns that are the guardians' though their headings do not say so. */
final class GuardianColumns
{
    /**
     * Addresses and phones that are the guardians' though their headings do not say so: numbered as the guardians are
     * ("Email 1", "Email 2"), or written like the guardian's name beside them and unlike the student's.
     *
     * @param  list<Column>  $columns
     * @param  list<Line>  $body
     * @return list<Column>
     */
    public static function found(array $columns, array $body): array
    {
        $at = [];
        foreach ($columns as $c) {
            if ($c->field !== null) {
                $at[$c->field->value] = $c->index;
            }
        }
        foreach (Field::guardians() as $n => $set) {
            $named = $at[$set['name']->value] ?? ($at[$set['given']->value] ?? null);
            if ($named === null) {
                continue;
            }
            foreach (['email', 'phone'] as $what) {
                if (isset($at[$set[$what]->value])) {
                    continue;
                }
                foreach ($columns as $i => $c) {
                    $free =
                        $c->why !== 'as you said' &&
                        ($c->field === null || in_array($c->field, [Field::Email, Field::Phone], true)) &&
                        preg_match('/student|pupil|school/i', $c->heading) !== 1;
                    $numbered = preg_match('/(\d)\s*$/', $c->heading, $m) === 1 && (int) $m[1] === $n + 1;
                    $reads = Heading::read($c->heading);
                    if (
                        $free &&
                        ($numbered ||
                            ($n === 0 && $what === 'email' && self::writesLike($c->index, $named, $at, $body))) &&
                        isset($reads[$what]) &&
                        !in_array($set[$what], array_map(fn(Column $x): ?Field => $x->field, $columns), true)
                    ) {
                        $columns[$i] = new Column(
                            $c->index,
                            $c->heading,
                            $c->samples,
                            $set[$what],
                            $numbered ? 'it has the number of the guardian' : 'it is written like the guardian’s name',
                        );
                        $at[$set[$what]->value] = $c->index;
                    }
                }
            }
        }

        return $columns;
    }

    /**
     * Whether the addresses of a column are made from the names of another, more often than from the student's.
     *
     * @param  array<string, int>  $at field to column
     * @param  list<Line>  $body
     */
    private static function writesLike(int $mail, int $named, array $at, array $body): bool
    {
        $theirs = $own = 0;
        foreach ($body as $line) {
            $local = NameKey::of((string) strstr($line->cell($mail), '@', true));
            if ($local === '') {
                continue;
            }
            $words = fn(string $cell): array => array_filter(
                explode(' ', NameKey::of($cell)),
                fn(string $w): bool => strlen($w) > 2,
            );
            $student = $words(
                implode(
                    ' ',
                    array_map(fn(string $f): string => isset($at[$f]) ? $line->cell($at[$f]) : '', [
                        'full_name',
                        'student_name',
                        'given_name',
                    ]),
                ),
            );
            $theirs += self::holds($local, array_diff($words($line->cell($named)), $student)) ? 1 : 0;
            $own += self::holds($local, array_diff($student, $words($line->cell($named)))) ? 1 : 0;
        }

        return $theirs > 0 && $theirs > 2 * $own;
    }

    /** @param  array<string>  $words */
    private static function holds(string $local, array $words): bool
    {
        foreach ($words as $word) {
            if (str_contains($local, $word)) {
                return true;
            }
        }

        return false;
    }
}
