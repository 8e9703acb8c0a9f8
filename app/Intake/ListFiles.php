<?php

declare(strict_types=1);

namespace App\Intake;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** Where uploaded lists are kept: in the instance's storage, under names of our own, readable by the server alone. */
final class ListFiles
{
    public static function keep(UploadedFile $file): string
    {
        $name = strtolower((string) Str::ulid()) . '.list';
        $file->move(self::folder(), $name);
        chmod(self::path($name), 0600);

        return $name;
    }

    public static function write(string $content): string
    {
        $name = strtolower((string) Str::ulid()) . '.list';
        file_put_contents(self::folder() . "/$name", $content);
        chmod(self::path($name), 0600);

        return $name;
    }

    public static function copy(string $from): string
    {
        return self::write((string) file_get_contents($from));
    }

    public static function path(string $name): string
    {
        return self::folder() . '/' . basename($name);
    }

    public static function remove(string $name): void
    {
        if ($name !== '') {
            @unlink(self::path($name));
            // With what was made of it, and what a killed job has left half-written.
            array_map(unlink(...), glob(self::path($name) . '.*') ?: []);
        }
    }

    /** Takes away the files of a list and its rows; what it was called, when it was applied and what it did stay. */
    public static function clear(string $listId): void
    {
        $list = DB::table('imports')
            ->where('id', $listId)
            ->first(['files', 'state']);
        DB::transaction(function () use ($listId, $list): void {
            DB::table('import_rows')->where('import_id', $listId)->delete();
            DB::table('imports')
                ->where('id', $listId)
                ->update([
                    'cleared_at' => now(),
                    'layout' => null,
                    'answers' => '{}',
                    ...$list?->state === 'applied' ? [] : ['state' => 'discarded'],
                ]);
        });
        DB::afterCommit(function () use ($list): void {
            foreach ((array) json_decode((string) $list?->files, true) as $file) {
                self::remove(is_array($file) ? (string) ($file['file'] ?? '') : '');
            }
        });
    }

    /** Whether a path is that of a list kept here, not of one that is read where it lies. */
    public static function isKept(string $path): bool
    {
        return dirname($path) === self::folder();
    }

    /** Where the cells of a list are kept, see {@see KeptSheets}. */
    public static function sheets(string $path): string
    {
        return "$path.sheets";
    }

    /** Where the picture of a sheet is kept, see {@see KeptPictures}. */
    public static function picture(string $path, int $round, int $source): string
    {
        return "$path.picture-$round-$source";
    }

    private static function folder(): string
    {
        $folder = storage_path('app/imports');
        if (!is_dir($folder)) {
            mkdir($folder, 0700, true);
        }

        return $folder;
    }
}
