<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Values\GradeLevel;

/**
 * Classes that are counted within their grade: "Grade 7, Section A" and "Grade 8, Section A" are two, and so are the
 * first classes of two years. The name of each is then that of both: 7A, 3-1.
 */
final class GradeClasses
{
    /** A letter, or a small number with or without the word for a class. */
    private const CLASS_OF_GRADE = '/^(?:(\p{Lu})|(\d{1,2}) ?(?:반|班|組|组)?)$/u';

    private const ROOMS = '/\b(room|rm|hr|homeroom|salle|salon|aula|raum|zimmer|block|period|day|track)\b/';

    /** @var array<string, bool> field to whether its classes are counted within the grade */
    private array $counted = [];

    /** @param  list<Line>  $body */
    public function __construct(private readonly ListLayout $layout, private readonly array $body) {}

    /** The class by its grade and its own name, where it needs both; otherwise as it is. */
    public function named(Field $field, string $class, Line $line): string
    {
        $grade = $this->gradeOf($line);
        if ($grade === null || preg_match(self::CLASS_OF_GRADE, $class, $m) !== 1 || !$this->areCounted($field)) {
            return $class;
        }

        return $m[1] !== '' ? "$grade$m[1]" : "$grade-" . (int) $m[2];
    }

    /** @return list<string> a sentence for each column whose classes are called otherwise than it says */
    public function warnings(string $of): array
    {
        return array_map(
            fn(string $field): string => 'The classes of column ' .
                $this->layout->headingOf(Field::from($field)) .
                "$of begin again in each grade, so each is called by its grade and its own name.",
            array_keys(array_filter($this->counted)),
        );
    }

    private function areCounted(Field $field): bool
    {
        return $this->counted[$field->value] ??= $this->count($field);
    }

    private function count(Field $field): bool
    {
        $at = $this->layout->indexOf($field);
        $heading = NameKey::of($this->layout->headingOf($field));
        $grades = [];
        foreach ($at === null ? [] : $this->body as $line) {
            $class = $line->bare((int) $at);
            $grade = $this->gradeOf($line);
            if ($class === '' || $grade === null) {
                continue;
            }
            if (preg_match(self::CLASS_OF_GRADE, $class, $m) !== 1) {
                return false;
            }
            if ($m[1] === '' && preg_match(self::ROOMS, $heading) === 1) {
                return false;
            }
            $grades[$grade][$m[1] === '' ? (string) (int) $m[2] : $m[1]] = true;
        }
        // Each grade has its first class: rooms that two grades share are numbered otherwise.
        return count(array_filter($grades, fn(array $classes): bool => isset($classes['A']) || isset($classes['1']))) >
            1;
    }

    /** As it stands before the name of a class: "K", "7". */
    private function gradeOf(Line $line): ?string
    {
        $at = $this->layout->indexOf(Field::Grade);
        $code = $at === null ? null : GradeLevel::read($line->bare($at))?->code();

        return $code === null ? null : ($code === 'KG' ? 'K' : ltrim($code, '0'));
    }
}
