<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Mailroom\Views\LetterFile;
use App\Models\Person;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use stdClass;
use Vantrel\Core\Mailroom\Attachment;
use Vantrel\Core\Mailroom\LetterBy;
use Vantrel\Core\Plan\Refusal;

/** Files that go with a letter to many: kept once, however many get it. */
final class LetterFiles
{
    /** @var array<string, list<stdClass>> of the mailing asked for last: a worker hands over one letter many times */
    private static array $last = [];

    /** @throws Refusal where it is none that goes with a letter */
    public function keep(UploadedFile $file, string $schoolId, Person $by): LetterFile
    {
        $unsent = DB::table('mailing_files')->where('person_id', $by->id)->whereNull('mailing_id')->count();
        if ($unsent >= Attachment::MOST_UNSENT) {
            throw new Refusal('Many files have been added and not sent. Send a letter first, or wait a day.', 'files');
        }
        $content = (string) file_get_contents((string) $file->getRealPath());
        $kind = Attachment::of($file->getClientOriginalName(), substr($content, 0, 16), strlen($content));
        $row = [
            'id' => (string) Str::ulid(),
            'school_id' => $schoolId,
            'person_id' => $by->id,
            'mailing_id' => null,
            'name' => $kind->name,
            'type' => $kind->type,
            'size' => strlen($content),
            'content' => $content,
            'made_at' => now(),
        ];
        DB::table('mailing_files')->insert($row);

        return new LetterFile($row['id'], $row['name'], $row['size']);
    }

    /**
     * @param  list<string>  $ids
     *
     * @throws Refusal where one is not there any more, is another’s or has gone with another letter, or all together
     *     are too large
     */
    public function mustBeOf(array $ids, Person $by, LetterBy $way): void
    {
        if ($ids === []) {
            return;
        }
        if ($way === LetterBy::Text) {
            throw new Refusal('A text message carries no files. Send it by mail, or take them off.', 'files');
        }
        $sizes = DB::table('mailing_files')
            ->whereIn('id', $ids)
            ->where('person_id', $by->id)
            ->whereNull('mailing_id')
            ->pluck('size');
        if ($sizes->count() !== count(array_unique($ids))) {
            throw new Refusal('A file is not there any more. Add it again.', 'files');
        }
        if ((int) $sizes->sum() > Attachment::ALL_BYTES) {
            throw new Refusal('All files together are more than 4 MB. Take one off, or make it smaller.', 'files');
        }
    }

    /**
     * Within the transaction that writes the letter: of two letters sent at one time one has the files.
     *
     * @param  list<string>  $ids
     *
     * @throws Refusal where another letter has taken one
     */
    public function goWith(string $mailingId, array $ids): void
    {
        $taken = DB::table('mailing_files')
            ->whereIn('id', $ids)
            ->whereNull('mailing_id')
            ->update(['mailing_id' => $mailingId]);
        if ($taken !== count(array_unique($ids))) {
            throw new Refusal('A file is not there any more. Add it again.', 'files');
        }
    }

    /** @return list<string> */
    public static function names(?string $mailingId): array
    {
        return $mailingId === null
            ? []
            : array_values(
                DB::table('mailing_files')
                    ->where('mailing_id', $mailingId)
                    ->orderBy('id')
                    ->pluck('name')
                    ->map(strval(...))
                    ->all(),
            );
    }

    /** @return list<stdClass> name, type and content, in the order they were added */
    public static function of(string $mailingId): array
    {
        if (!isset(self::$last[$mailingId])) {
            self::$last = [
                $mailingId => array_values(
                    DB::table('mailing_files')
                        ->where('mailing_id', $mailingId)
                        ->orderBy('id')
                        ->get(['name', 'type', 'content'])
                        ->all(),
                ),
            ];
        }

        return self::$last[$mailingId];
    }
}
