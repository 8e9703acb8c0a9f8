<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Jobs\PlanIntake;
use App\Models\Intake;
use App\Models\Person;
use App\Models\School;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Vantrel\Core\Table\UnreadableList;

/** Begins with a list: keeps its files, and has it read and planned in the background. */
final class NewIntakes
{
    /**
     * @param  list<array{string, string, UploadedFile|null}>  $files path, title, and the upload it came as
     * @param  Person|null  $actor null where nobody looks
     *
     * @throws UnreadableList where a file cannot be read at all: nothing is kept then
     */
    public function begin(School $school, ?Person $actor, array $files): Intake
    {
        $hash = hash(
            'sha256',
            implode('|', array_map(fn(array $f): string => (string) hash_file('sha256', $f[0]), $files)),
        );
        $kept = array_map(
            fn(array $f): array => [
                'file' => $f[2] === null ? ListFiles::copy($f[0]) : ListFiles::keep($f[2]),
                'title' => $f[1],
            ],
            $files,
        );
        try {
            foreach ($kept as ['file' => $file, 'title' => $title]) {
                KeptSheets::begin(ListFiles::path($file), $title, $school->name, $school->code);
            }
        } catch (UnreadableList $e) {
            array_map(fn(array $k) => ListFiles::remove($k['file']), $kept);
            throw $e;
        }

        return DB::transaction(function () use ($school, $actor, $files, $kept, $hash): Intake {
            $intake = Intake::query()->create([
                'id' => (string) Str::ulid(),
                'school_id' => $school->id,
                'actor_id' => $actor?->id,
                'title' => Str::limit(implode(', ', array_map(fn(array $f): string => $f[1], $files)), 150, '…'),
                'files' => $kept,
                'content_hash' => $hash,
                'state' => 'reading',
                'answers' => $this->answersBefore($school, $hash),
                'round' => 1,
                'done' => 0,
                'total' => 0,
                'made_at' => now(),
                'changed_at' => now(),
            ]);
            PlanIntake::dispatch($intake->id, 1);

            return $intake;
        });
    }

    /**
     * The answers given the last time the very same file was brought in: nobody answers twice.
     *
     * @return array<string, string>
     */
    private function answersBefore(School $school, string $hash): array
    {
        return Intake::query()
            ->where('school_id', $school->id)
            ->where('content_hash', $hash)
            ->orderByDesc('made_at')
            ->orderByDesc('id')
            ->first()->answers ?? [];
    }
}
