<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\RowNumbers;
use Vantrel\Core\Values\StudentStatus;

/**
 * Notes of an office that somebody may be kept from a child: a court's order, custody, whom not to call. Nothing is
 * made of them, for they say too many things in too many ways; but nobody may miss one. Common practice, no source.
 */
final class Caution
{
    /** What is not to be done, where it is done with a person: photographs and peanuts are other matters. */
    private const DOING = '(?:call|contact|e-?mail|text|phone|release|pick|see|visit|speak|talk|let|give|invite)';

    private const WORDS =
        '/\b(custody|court[- ](?:orders?|ordered|papers?|documents?)|restrain\w*|protective order|no[ -]contact|' .
        'supervised (?:visit|contact)\w*|(?:do|must|may|should|can) ?not (?:be )?' .
        self::DOING .
        '\w*|(?:don|can)[’\']?t ' .
        self::DOING .
        '|not (?:allowed|permitted|authori[sz]ed) (?:to|near|at|on|contact)|no pick ?-?up|custodia|' .
        'orden (?:de alejamiento|judicial)|no (?:llamar|contactar|entregar)|' .
        'ne pas (?:contacter|appeler|remettre)|garde (?:exclusive|alternée)|sorgerecht|kontaktverbot|' .
        'nicht (?:anrufen|kontaktieren))\b|опік|заборонен\w* (?:забирати|контакт|бачити)|' .
        'не (?:дзвонити|телефонувати|віддавати)|监护权|不得(?:接|联系)|حضانة|quyền nuôi|không được (?:đón|liên hệ)/iu';

    private const ALLOWS = '/\b(custod\w*|pick ?up|may (call|contact|see)|contact allowed|has access|legal rights)\b/';

    private const BARS = '/\b(restrict\w*|no contact|court order|do not (call|contact|release)|restraining|barred)\b/';

    /** @var list<int> places of the columns that nothing is read from */
    private readonly array $unread;

    /** @var list<int> places of the columns of relationships */
    private readonly array $relations;

    /** @var list<int> numbers of the rows that have such a note */
    private array $rows = [];

    public function __construct(private readonly ListLayout $layout)
    {
        $this->unread = array_keys(array_filter($layout->columns, fn(Column $c): bool => $c->field === null));
        $this->relations = array_values(
            array_filter(
                array_map(fn(array $set): ?int => $layout->indexOf($set['relationship']), Field::guardians()),
                fn(?int $at): bool => $at !== null,
            ),
        );
    }

    /** @return list<Problem> one for each such note of the row in a column that nothing is read from */
    public function of(Line $line): array
    {
        $problems = [];
        foreach ($this->unread as $at) {
            $column = $this->layout->columns[$at];
            $note = $line->bare($column->index);
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
        $relations = array_filter($this->relations, fn(int $at): bool => self::in($line->bare($at)));
        if ($problems !== [] || $relations !== []) {
            $this->rows[] = $line->number;
        }

        return $problems;
    }

    /** @return list<string> a sentence for the head of the plan: what stands at a row alone is missed among many */
    public function warnings(string $of): array
    {
        return $this->rows === []
            ? []
            : [
                RowNumbers::sentence(
                    $this->rows,
                    $of,
                    'has a note that may keep somebody from a child. Look at it before anyone is invited.',
                    'have notes that may keep somebody from a child. Look at them before anyone is invited.',
                ),
            ];
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
