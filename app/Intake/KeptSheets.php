<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Files\ListFile;
use App\Intake\Files\ReadApart;
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
        if (!ListFiles::isKept($path)) {
            return ListFile::sheets($path, $title, $schoolName, $schoolCode);
        }
        $kept = self::kept($path);
        if ($kept === null) {
            self::read($path, $title, $schoolName, $schoolCode, ReadApart::AT_MOST);
            $kept = self::kept($path);
        }
        if ($kept === null) {
            // Not tried again for every look at it.
            self::write($path, ['format' => self::FORMAT, 'unreadable' => ReadApart::cannot()->getMessage()]);
        }

        return $kept ?? throw ReadApart::cannot();
    }

    /**
     * Reads a list that has just come, where that takes no longer than somebody waits for.
     *
     * @throws UnreadableList where there is none in it
     */
    public static function begin(string $path, string $title, string $schoolName, string $schoolCode): void
    {
        $whole = self::read($path, $title, $schoolName, $schoolCode, ReadApart::AT_ONCE);
        if ($whole && self::kept($path) === null) {
            throw ReadApart::cannot();
        }
    }

    /** Reads it in this process, and keeps its cells or why there are none. */
    public static function readHere(string $path, string $title, string $schoolName, string $schoolCode): void
    {
        try {
            self::keep($path, ListFile::sheets($path, $title, $schoolName, $schoolCode));
        } catch (UnreadableList $e) {
            self::write($path, ['format' => self::FORMAT, 'unreadable' => $e->getMessage()]);
        }
    }

    /** @return bool false where it took longer than that */
    private static function read(string $path, string $title, string $name, string $code, int $seconds): bool
    {
        if ((bool) config('vantrel.read_apart')) {
            return ReadApart::keep($path, $title, $name, $code, $seconds);
        }
        self::readHere($path, $title, $name, $code);

        return true;
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
        self::write($path, $content);
    }

    /** @param  array<string, mixed>  $content */
    private static function write(string $path, array $content): void
    {
        // Whole or not at all: two jobs may read the same list.
        $part = ListFiles::sheets($path) . '.' . getmypid();
        $packed = gzencode(json_encode($content, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE), 3);
        file_put_contents($part, (string) $packed);
        chmod($part, 0600);
        rename($part, ListFiles::sheets($path));
    }

    /**
     * @return list<Sheet>|null null where nothing is kept that can be used
     *
     * @throws UnreadableList where it has been read and there was no list in it
     */
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
        if (isset($content['unreadable'])) {
            throw new UnreadableList((string) $content['unreadable']);
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
