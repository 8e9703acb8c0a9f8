<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Files\ListFile;
use JsonException;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\Sheet;
use Vantrel\Core\Table\UnreadableList;

/**
 * The cells of an uploaded list as they were read, kept beside it: a file is taken apart once, and every plan, answer
 * and the applying work with the same cells. Gone with the file.
 */
final class KeptSheets
{
    /** Another number where what is read of a file, or how it is kept, changes: it is read anew then. */
    private const FORMAT = 2;

    /**
     * @param  string  $path of the list
     * @param  string  $schoolName and its code, for exports that hold several schools
     * @return list<Sheet>
     *
     * @throws UnreadableList
     */
    public static function of(string $path, string $title, string $schoolName, string $schoolCode): array
    {
        $kept = ListFiles::isKept($path) ? self::kept($path) : null;
        if ($kept !== null) {
            return $kept;
        }
        $sheets = ListFile::sheets($path, $title, $schoolName, $schoolCode);
        if (ListFiles::isKept($path)) {
            self::keep($path, $sheets);
        }

        return $sheets;
    }

    /** @param  list<Sheet>  $sheets */
    public static function keep(string $path, array $sheets): void
    {
        $content = [
            'format' => self::FORMAT,
            'sheets' => array_map(
                fn(Sheet $s): array => [
                    'name' => $s->name,
                    'file' => $s->file,
                    'check' => $s->check,
                    'notes' => $s->notes,
                    'lines' => array_map(
                        fn(Line $l): array => [
                            $l->number,
                            $l->cells,
                            $l->flaws,
                            (int) $l->hidden + 2 * (int) $l->struck,
                        ],
                        $s->grid->lines,
                    ),
                ],
                $sheets,
            ),
        ];
        // Whole or not at all: two jobs may read the same list.
        $part = ListFiles::sheets($path) . '.' . getmypid();
        $packed = gzencode(json_encode($content, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE), 3);
        file_put_contents($part, (string) $packed);
        chmod($part, 0600);
        rename($part, ListFiles::sheets($path));
    }

    /** @return list<Sheet>|null null where nothing is kept that can be used */
    private static function kept(string $path): ?array
    {
        $packed = @file_get_contents(ListFiles::sheets($path));
        $json = $packed === false ? false : @gzdecode($packed);
        try {
            $content = $json === false ? null : json_decode($json, true, 16, JSON_THROW_ON_ERROR);
        } catch (JsonException) {
            return null;
        }
        if (!is_array($content) || ($content['format'] ?? null) !== self::FORMAT) {
            return null;
        }

        return array_values(
            array_map(
                fn(array $s): Sheet => new Sheet(
                    $s['name'],
                    Grid::of(
                        array_map(
                            fn(array $l): Line => new Line($l[0], $l[1], $l[2], ($l[3] & 1) !== 0, ($l[3] & 2) !== 0),
                            $s['lines'],
                        ),
                    ),
                    $s['file'],
                    $s['check'],
                    $s['notes'],
                ),
                $content['sheets'],
            ),
        );
    }
}
