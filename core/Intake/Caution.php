<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Values\StudentStatus;

/**
 * Notes of an office that somebody may be kept from a child: a court's order, custody, whom not to call. Nothing is
 * made of them, for they say too many things in too many ways; but nobody may miss one. Common practice, no source.
 */
final class Caution
{
    private const WORDS =
        '/\b(custody|court|restrain\w*|protective order|no[ -]contact|supervised (?:visit|contact)\w*|' .
        '(?:do|must|may|should) not|don[’\']?t|not (?:allowed|permitted|to (?:be )?(?:pick|contact|call|release))|' .
        'no pick ?-?up|custodia|orden (?:de alejamiento|judicial)|no (?:llamar|contactar|entregar)|' .
        'ne pas (?:contacter|appeler|remettre)|garde (?:exclusive|alternée)|jugement|sorgerecht|kontaktverbot|' .
        'nicht (?:anrufen|kontaktieren))\b|опік|заборон|не (?:дзвонити|телефонувати|віддавати)|监护权|不得|حضانة|ممنوع|' .
        'quyền nuôi|không được/iu';

    private const ALLOWS = '/\b(custod\w*|pick ?up|may (call|contact|see)|contact allowed|has access|legal rights)\b/';

    private const BARS = '/\b(restrict\w*|no contact|court order|do not (call|contact|release)|restraining|barred)\b/';

    /** @return list<Problem> one for each such note in a column that nothing is read from */
    public static function problems(Line $line, ListLayout $layout): array
    {
        $problems = [];
        foreach ($layout->columns as $column) {
            $note = $column->field === null ? $line->bare($column->index) : '';
            if ($note !== '' && (self::in($note) || self::answers($column->heading, $note))) {
                $problems[] = new Problem(
                    $column->name(),
                    '“' .
                        mb_strimwidth($note, 0, 120, '…') .
                        '” is not read. If it keeps somebody from the child, restrict that guardian before anyone is ' .
                        'invited.',
                    false,
                );
            }
        }

        return $problems;
    }

    /** "Custodial: N", "May pick up: No", "Restricted: Y". */
    private static function answers(string $heading, string $note): bool
    {
        $said = StudentStatus::yes($note);

        return $said !== null && preg_match($said ? self::BARS : self::ALLOWS, NameKey::of($heading)) === 1;
    }

    public static function in(string $note): bool
    {
        return preg_match(self::WORDS, $note) === 1;
    }
}
