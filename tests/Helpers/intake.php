<?php

declare(strict_types=1);

use Illuminate\Http\UploadedFile;
use Tests\Support\World;

function manyStudents(World $world, int $n): void
{
    for ($i = 0; $i < $n; $i++) {
        $world->student(
            'Pupil' . chr(97 + ($i % 26)) . chr(97 + intdiv($i, 26)) . ' Family' . chr(97 + ($i % 23)),
            $world->section,
            ['number' => sprintf('03%04d', $i), 'grade' => '03'],
        );
    }
}

/** What every test of them begins with. */
function readyForLists(object $test): void
{
    $test->world = World::make();
    $test->as = $test->actingAs($test->world->as('coordinator'));
    $test->bring = fn(array $body): array => $test->as
        ->post("/api/schools/{$test->world->school}/intakes", $body, ['Accept' => 'application/json'])
        ->assertOk()
        ->json();
    $test->csv = fn(string $csv, string $name = 'list.csv'): array => ($test->bring)([
        'files' => [UploadedFile::fake()->createWithContent($name, $csv)],
    ]);
    $test->show = fn(string $id): array => $test->as
        ->getJson("/api/intakes/$id")
        ->assertOk()
        ->json();
    $test->answer = fn(string $id, array $answers): array => $test->as
        ->postJson("/api/intakes/$id/answers", ['answers' => $answers])
        ->assertOk()
        ->json();
    $test->apply = fn(string $id, array $more = []) => $test->as->postJson("/api/intakes/$id/apply", [
        'fingerprint' => ($test->show)($id)['fingerprint'],
        ...$more,
    ]);
    $test->rows = fn(string $id, string $verdict = ''): array => $test->as
        ->getJson("/api/intakes/$id/rows" . ($verdict === '' ? '' : "?verdict=$verdict"))
        ->assertOk()
        ->json('rows');
}
