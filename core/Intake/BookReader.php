<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\ListKind;
use Vantrel\Core\Table\ReadingAnswers;
use Vantrel\Core\Table\Sheet;
use Vantrel\Core\Table\UnreadableList;

/**
 * Reads all sheets of all files of an intake: each with a layout of its own, a sheet for each section where their names
 * say so.
 */
final readonly class BookReader
{
    /** Names of sheets that say what is in them, not which section it is. */
    private const NOT_SECTIONS =
        '/^(all|data|export|students?|pupils?|roster|class ?list|list|guardians?|parents?|contacts?|staff|teachers?|' .
        'sections?|classes|enrol?lments?|alumnos|estudiantes|padres|eleves|enfants|new|readme|notes?|summary|' .
        'import)\b/i';

    /**
     * @param  list<Sheet>  $sheets
     * @param  array<int, ListLayout>  $layouts by the place of the sheet; none for a sheet that is left out
     */
    private function __construct(public array $sheets, public array $layouts, public ListContents $contents) {}

    /**
     * @param  list<Sheet>  $sheets
     *
     * @throws UnreadableList where no sheet can be read
     */
    public static function read(
        array $sheets,
        ReadingAnswers $said,
        SchoolFacts $school,
        NameBook $book,
        string $today,
    ): self {
        $layouts = $warnings = [];
        $reason = null;
        foreach ($sheets as $i => $sheet) {
            if ($said->about($i, 'skip') !== null) {
                continue;
            }
            try {
                $layouts[$i] = ListLayout::of($sheet, $i, $said, $book);
            } catch (UnreadableList $e) {
                $reason ??= $e;
                $warnings[] = self::label($sheets, $i) . ' is left out: no column of it looks like names or sections.';
            }
        }
        if ($layouts === []) {
            throw $reason ??
                new UnreadableList('Every sheet of this file is left out. Take at least one of them back in.');
        }
        $sections = self::sections($sheets, $layouts);
        $contents = new ListContents([], [], [], $warnings);
        foreach ($layouts as $i => $layout) {
            $contents = $contents->and(
                ListReader::read(
                    $sheets[$i],
                    $layout,
                    self::label($sheets, $i),
                    $sections[$i] ?? null,
                    $said,
                    $school,
                    $book,
                    $today,
                ),
            );
        }

        return new self($sheets, $layouts, $contents);
    }

    /**
     * What a sheet is called beside the others, '' where it is the only one.
     *
     * @param  list<Sheet>  $sheets
     */
    public static function label(array $sheets, int $i): string
    {
        if (count($sheets) === 1) {
            return '';
        }
        $files = array_unique(array_map(fn(Sheet $s): string => $s->file, $sheets));
        $ofFile = count(array_filter($sheets, fn(Sheet $s): bool => $s->file === $sheets[$i]->file));

        return match (true) {
            count($files) === 1 => $sheets[$i]->name !== '' ? $sheets[$i]->name : 'sheet ' . ($i + 1),
            $ofFile === 1 => $sheets[$i]->file,
            default => "{$sheets[$i]->file}, {$sheets[$i]->name}",
        };
    }

    /**
     * @param  list<Sheet>  $sheets
     * @param  array<int, ListLayout>  $layouts
     * @return array<int, string> the section that a sheet is, by its name
     */
    private static function sections(array $sheets, array $layouts): array
    {
        $sections = [];
        foreach ($layouts as $i => $layout) {
            if (
                $layout->kind === ListKind::Students &&
                $layout->indexOf(Field::Section) === null &&
                $layout->indexOf(Field::Homeroom) === null &&
                $sheets[$i]->isNamedByHand() &&
                preg_match(self::NOT_SECTIONS, NameKey::of($sheets[$i]->name)) !== 1
            ) {
                $sections[$i] = trim($sheets[$i]->name);
            }
        }

        return count($sections) > 1 ? $sections : [];
    }
}
