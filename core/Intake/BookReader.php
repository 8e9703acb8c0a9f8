<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Choice;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\ListKind;
use Vantrel\Core\Table\ReadingAnswers;
use Vantrel\Core\Table\Shape;
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
        'import|boys|girls|male|female|ninos|ninas|chicos|chicas|garcons|filles|jungen|madchen)\b/i';

    /**
     * @param  list<Sheet>  $sheets tables found in the sheets of the files
     * @param  array<int, ListLayout>  $layouts by the place of the table; none for one that is left out
     * @param  list<Shape>  $shapes sheet of the files to what was found in it
     * @param  list<int>  $sources place of a table to that of its sheet in the files
     */
    private function __construct(
        public array $sheets,
        public array $layouts,
        public ListContents $contents,
        public array $shapes,
        public array $sources,
    ) {}

    /**
     * The sheets as they came, for whom nothing could be read: with what was found of their tables, and no layout.
     *
     * @param  list<Sheet>  $sheets
     */
    public static function unread(array $sheets, ReadingAnswers $said): self
    {
        [$shapes, $tables, $sources] = self::shaped($sheets, $said);

        return new self($tables, [], new ListContents(), $shapes, $sources);
    }

    /**
     * @param  list<Sheet>  $sheets
     * @return array{list<Shape>, list<Sheet>, list<int>}
     */
    private static function shaped(array $sheets, ReadingAnswers $said): array
    {
        $shapes = $tables = $sources = [];
        foreach ($sheets as $source => $sheet) {
            $shapes[] = $shape = Shape::of($sheet, $source, $said);
            foreach ($shape->tables as $table) {
                $tables[] = $table;
                $sources[] = $source;
            }
        }

        return [$shapes, $tables, $sources];
    }

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
        [$shapes, $sheets, $sources] = self::shaped($sheets, $said);
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
        [$layouts, $left] = self::withoutNotes($sheets, $layouts, $said);
        $warnings = [...$warnings, ...$left];
        if ($layouts === []) {
            throw $reason ??
                new UnreadableList('Every sheet of this file is left out. Take at least one of them back in.');
        }
        $sections = self::sections($sheets, $layouts);
        $contents = new ListContents([], [], [], $warnings, self::hidden($shapes, $said));
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

        return new self($sheets, $layouts, $contents, $shapes, $sources);
    }

    /**
     * @param  list<Shape>  $shapes
     * @return list<Question> whether rows that a file hides belong to its list
     */
    private static function hidden(array $shapes, ReadingAnswers $said): array
    {
        $questions = [];
        foreach ($shapes as $source => $shape) {
            if ($shape->hides && $said->about($source, 'hidden', 's') === null) {
                $questions[] = new Question(
                    "s$source.hidden",
                    null,
                    'Do the hidden rows of the file belong to the list?',
                    'A filter, or somebody’s hand, hides them; they are left out until you say otherwise.',
                    [
                        new Choice('leave', 'No, leave them out', 'as the plan shows it'),
                        new Choice('take', 'Yes, read them too', 'they come in with the others'),
                    ],
                );
            }
        }

        return $questions;
    }

    /**
     * A sheet without a header beside one that has one, in which nothing but words stands, is no list of people.
     *
     * @param  list<Sheet>  $sheets
     * @param  array<int, ListLayout>  $layouts
     * @return array{array<int, ListLayout>, list<string>}
     */
    private static function withoutNotes(array $sheets, array $layouts, ReadingAnswers $said): array
    {
        if (array_filter($layouts, fn(ListLayout $l): bool => $l->headerRow !== null) === []) {
            return [$layouts, []];
        }
        $left = [];
        foreach ($layouts as $i => $layout) {
            $known = array_filter($layout->columns, fn(Column $c): bool => $c->field !== null);
            if ($layout->headerRow === null && count($known) < 2 && $said->columns($i) === [] && !$layout->kindSaid) {
                unset($layouts[$i]);
                $left[] = self::label($sheets, $i) . ' is left out: it has no header, and nothing in it but text.';
            }
        }

        return [$layouts, $left];
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
            // "3 Heron child 2" is the second child of each family of 3 Heron.
            $name = trim((string) preg_replace('/(^| )(child|list) \d$/', '', $sheets[$i]->name));
            if (
                $name !== '' &&
                $layout->kind === ListKind::Students &&
                $layout->indexOf(Field::Section) === null &&
                $layout->indexOf(Field::Homeroom) === null &&
                $sheets[$i]->isNamedByHand() &&
                preg_match(self::NOT_SECTIONS, NameKey::of($name)) !== 1
            ) {
                $sections[$i] = $name;
            }
        }

        // One alone is a section's where its name has the look of one, as "3 Heron" and "Room 4" have.
        return count($sections) > 1 ||
            (count($layouts) === 1 && preg_grep('/\d/', $sections) !== [] && preg_grep('/20\d\d/', $sections) === [])
            ? $sections
            : [];
    }
}
