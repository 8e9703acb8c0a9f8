<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Line;

/** Whether the headings of given and family names stand over each other's columns. */
final class ExchangedNames
{
    private const LOOK_AT = 200;

    /** Bits by which a word is rather the one than the other. */
    private const PLAINLY = 1.5;

    /**
     * @param  list<Line>  $body
     * @return list<string> a sentence, or none
     */
    public static function warnings(ListLayout $layout, array $body, NameBook $book, string $of): array
    {
        $given = $layout->column(Field::GivenName);
        $family = $layout->column(Field::FamilyName);
        if ($given === null || $family === null) {
            return [];
        }
        $lean = fn(Line $line, int $at): float => $book->givenRatherThanFamily(
            explode(' ', NameKey::of($line->bare($at)))[0],
        );
        $rightly = $exchanged = 0;
        foreach (array_slice($body, 0, self::LOOK_AT) as $line) {
            $bits = $lean($line, $given->index) - $lean($line, $family->index);
            $rightly += $bits > self::PLAINLY ? 1 : 0;
            $exchanged += $bits < -self::PLAINLY ? 1 : 0;
        }

        return $exchanged < 3 || $exchanged <= 3 * $rightly
            ? []
            : [
                "Most names in column {$family->name()}$of look like given names, and those in {$given->name()} like " .
                'family names. If the headings are exchanged, say so at the head of each column.',
            ];
    }
}
