<?php

declare(strict_types=1);

use App\Intake\Files\ListFile;
use App\Intake\KeptSheets;
use App\Intake\ListFiles;
use App\Models\Intake;

beforeEach(fn() => readyForLists($this));

function keptListOf(object $test, string $csv = "Name,Grade\nMina Quill,4\n"): string
{
    $id = ($test->csv)($csv)['id'];

    return ListFiles::path(Intake::query()->findOrFail($id)->files[0]['file']);
}

it('takes a file apart once: plans and answers work with the cells as they were read', function (): void {
    $path = keptListOf($this);
    $intake = Intake::query()->where('state', 'planned')->firstOrFail();
    expect(fileperms(ListFiles::sheets($path)) & 0777)->toBe(0600);
    // Whatever became of the file since, the plan is of the list that was brought in.
    file_put_contents($path, 'not a list any more');
    $this->postJson("/api/intakes/$intake->id/answers", ['answers' => ['t0.names' => 'given']])->assertOk();
    expect($this->getJson("/api/intakes/$intake->id/rows")->json('rows.0.cells.Name.after'))->toBe('Mina Quill');
});

it('reads the file again where what was kept is gone, damaged, or of another version', function (Closure $spoil): void {
    $path = keptListOf($this);
    $spoil(ListFiles::sheets($path));
    $sheets = KeptSheets::of($path, 'list.csv', 'Lanternfield Primary', 'primary');
    expect($sheets[0]->grid->lines[1]->cells)->toBe(['Mina Quill', '4']);
    // And keeps it anew.
    $content = json_decode((string) gzdecode((string) file_get_contents(ListFiles::sheets($path))), true);
    expect($content['format'])->toBe(2);
})->with([
    'gone' => [fn(string $f) => unlink($f)],
    'cut short' => [fn(string $f) => file_put_contents($f, substr((string) file_get_contents($f), 0, 20))],
    'no JSON' => [fn(string $f) => file_put_contents($f, (string) gzencode('{'))],
    'another version' => [fn(string $f) => file_put_contents($f, (string) gzencode('{"format":0}'))],
]);

it('gives back every cell of the lists that ship, with its place and its flaws', function (): void {
    foreach (glob(base_path('demo/*.{xlsx,csv,ods,zip}'), GLOB_BRACE) ?: [] as $list) {
        $read = ListFile::sheets($list, basename($list), 'Copperbrook Middle', 'middle');
        $path = ListFiles::path(ListFiles::copy($list));
        KeptSheets::keep($path, $read);
        expect(KeptSheets::of($path, basename($list), 'Copperbrook Middle', 'middle'))->toEqual($read, $list);
        ListFiles::remove(basename($path));
        expect(is_file(ListFiles::sheets($path)))->toBeFalse();
    }
});

it('keeps nothing beside a list that is read where it lies, and nothing of one that is thrown away', function (): void {
    $list = (string) tempnam(sys_get_temp_dir(), 'list');
    file_put_contents($list, "Name,Grade\nMina Quill,4\n");
    KeptSheets::of($list, 'list.csv', 'Lanternfield Primary', 'primary');
    expect(is_file("$list.sheets"))->toBeFalse();
    unlink($list);
    $path = keptListOf($this);
    $id = Intake::query()->where('state', 'planned')->value('id');
    $half = ListFiles::sheets($path) . '.4711';
    file_put_contents($half, 'what a killed job left');
    $this->deleteJson("/api/intakes/$id")->assertNoContent();
    expect(is_file($path))
        ->toBeFalse()
        ->and(is_file(ListFiles::sheets($path)))
        ->toBeFalse()
        ->and(is_file($half))
        ->toBeFalse();
});
