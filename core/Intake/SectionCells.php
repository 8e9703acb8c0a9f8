<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\ListKind;

/** Which sections a row puts somebody into. */
final class SectionCells
{
    /** @var array<string, true>|null */
    private ?array $wholeSections = null;

    private readonly GradeClasses $grades;

    /**
     * @param  string|null  $section that all rows of the sheet belong to, where its name says so
     * @param  list<Line>  $body
     */
    public function __construct(
        private readonly RowReader $row,
        private readonly ListLayout $layout,
        private readonly ?string $section,
        private readonly array $body,
    ) {
        $this->grades = new GradeClasses($layout, $body);
    }

    /** @return list<string> */
    public function warnings(string $of): array
    {
        return $this->grades->warnings($of);
    }

    /** The homeroom by its column; in a list of students that has none, by who leads it. */
    public function homeroom(Line $line): string
    {
        if (
            $this->layout->kind === ListKind::Students &&
            $this->layout->indexOf(Field::Homeroom) === null &&
            $this->layout->indexOf(Field::Section) === null &&
            $this->section === null
        ) {
            return $this->row->name(Field::Teacher, null, null)->full();
        }

        return $this->grades->named(Field::Homeroom, $this->row->cell(Field::Homeroom), $line);
    }

    /** @return list<string> a cell may name several */
    public function named(Line $line): array
    {
        $sections = array_map(
            fn(string $section): string => $this->grades->named(Field::Section, $section, $line),
            $this->divided($this->row->cellWithBreaks(Field::Section)),
        );
        $number = $this->row->cell(Field::SectionNumber);
        // "Math 7" is taught several times over: its number tells which.
        if ($number !== '' && count($sections) === 1) {
            $sections = ["$sections[0] - $number"];
        }

        return $sections === [] && $this->section !== null && $this->homeroom($line) === ''
            ? [$this->section]
            : $sections;
    }

    /** @return list<string> the sections a cell names, apart by ; | or a break, or by a comma or / between codes */
    private function divided(string $cell): array
    {
        $parts = fn(string $sign): array => array_values(
            array_filter(array_map(trim(...), preg_split($sign, $cell) ?: []), fn(string $s): bool => $s !== ''),
        );
        $sections = $parts('/\s*[;|\n]\s*/u');
        if (count($sections) === 1) {
            $more = $parts('/\s*,\s*|\s+\/\s+/u');
            // "Reading, Grade 3" is one name; "MATH-7A, SCI-7A" are two, and so are names that stand alone elsewhere.
            $codes = preg_grep('/^(?=.*\d)[\p{L}\d][\p{L}\d.\-]{1,15}$/u', $more);
            $alone = array_filter($more, fn(string $s): bool => isset($this->wholeSections()[$s]));
            if (count($more) > 1 && ($codes === $more || count($alone) === count($more))) {
                return $more;
            }
        }

        return $sections;
    }

    /** @return array<string, true> what whole cells of the column of sections say */
    private function wholeSections(): array
    {
        if ($this->wholeSections === null) {
            $this->wholeSections = [];
            $at = (int) $this->layout->indexOf(Field::Section);
            foreach ($this->body as $line) {
                $this->wholeSections[$line->bare($at)] = true;
            }
        }

        return $this->wholeSections;
    }
}
