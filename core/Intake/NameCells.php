<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameMarks;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Table\Field;

/**
 * Reads the name of a row: whole or in parts, one way round or the other, capitals mended, notes in brackets left out.
 */
final readonly class NameCells
{
    public function __construct(private RowReader $row, private ListLayout $layout, private NameBook $book) {}

    public function read(Field $full, ?Field $given, ?Field $family): PersonName
    {
        $whole = $this->withoutNote($full, $this->row->cell($full));
        // "Quill / Ada / Mae" under "Last / First / Middle".
        $whole =
            !str_contains($whole, ',') && preg_match('/\p{L} +\/ +\p{L}/u', $whole) === 1
                ? trim((string) preg_replace('/ *\/ */u', ', ', $whole), ' ,')
                : $whole;
        if ($whole !== '') {
            $read = NameReader::read($whole, $this->layout->names->familyFirst, $this->book);

            return $this->capitals(
                $full,
                $whole,
                $read,
                NameReader::split($whole, $this->layout->names->familyFirst, $this->book),
            );
        }
        if ($given === null || $family === null) {
            return new PersonName('', '');
        }
        $first = $this->withoutNote($given, $this->row->cell($given));
        if ($this->layout->indexOf($family) === null && str_contains($first, ' ')) {
            return $this->capitals(
                $given,
                $first,
                NameReader::read($first, $this->layout->names->familyFirst, $this->book),
                NameReader::split($first, $this->layout->names->familyFirst, $this->book),
            );
        }
        $last = $this->withoutNote($family, $this->row->cell($family));
        // A given-name cell that holds "Haddad, Noor" is a full name that slipped into the wrong column.
        if ($last === '' && str_contains($first, ',')) {
            return NameReader::read($first);
        }
        if ($first === '' && str_contains($last, ',')) {
            return NameReader::read($last);
        }
        $written = new PersonName(trim($first, ' ,'), trim($last, ' ,'));
        $mended = NameReader::mend($written);
        $out = new PersonName(
            $mended->given === $written->given
                ? $written->given
                : $this->row->mend($given, 'capitals', $written->given, $mended->given),
            $mended->family === $written->family
                ? $written->family
                : $this->row->mend($family, 'capitals', $written->family, $mended->family),
        );

        return $this->asName($given, $out);
    }

    private function capitals(Field $field, string $cell, PersonName $read, PersonName $written): PersonName
    {
        if ($read->full() !== $written->full()) {
            $kept = $this->row->mend(
                $field,
                'capitals',
                $cell,
                str_contains($cell, ',') ? "$read->family, $read->given" : $read->full(),
            );

            return $this->asName($field, $kept === $cell ? $written : $read);
        }

        return $this->asName($field, $read);
    }

    /** "Noor Haddad (new)", "Noor “Nonie” Haddad": what is no part of the name is taken off, unless it is kept. */
    private function withoutNote(Field $field, string $cell): string
    {
        $marks = NameMarks::apart($cell);

        return $marks->name === $cell ? $cell : $this->row->mend($field, $marks->kind, $cell, $marks->name);
    }

    private function asName(Field $field, PersonName $name): PersonName
    {
        if (NameMarks::isNoName($name->full()) && !$this->row->isNobody($name)) {
            $this->row->problem(
                $field,
                "“{$name->full()}” holds figures or signs that are in no name. Correct the cell, or delete the row " .
                    'if it names nobody.',
            );
        }
        if (mb_strlen($name->given) > 120 || mb_strlen($name->family) > 120) {
            $this->row->problem($field, 'This is too long for a name (120 characters at most).');

            return new PersonName(mb_substr($name->given, 0, 120), mb_substr($name->family, 0, 120));
        }

        return $name;
    }
}
