<?php

declare(strict_types=1);

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

it('answers broken input with a sentence and writes nothing', function (Closure $make, string $says): void {
    $world = World::make();
    $folder = scratch();
    [$name, $path] = $make($folder);
    $before = World::checksum();
    $response = $this->actingAs($world->as('coordinator'))->post(
        "/api/schools/$world->school/intakes",
        ['file' => new UploadedFile($path, $name, null, null, true)],
        ['Accept' => 'application/json'],
    );
    if ($response->getStatusCode() === 200) {
        // Read as a list, and refused when its columns were named.
        $detail = DB::table('imports')->where('id', $response->json('id'))->first();
        expect($detail->state)->toBe('unreadable')->and($detail->message)->toContain($says);
    } else {
        $response->assertStatus(422);
        expect($response->json('detail'))
            ->toContain($says)
            ->and(DB::table('imports')->count())
            ->toBe(0);
    }
    expect(World::checksum())->toBe($before);
})->with([
    'an empty file' => [
        fn(string $f): array => ['list.csv', tap("$f/a", fn($p) => file_put_contents($p, ''))],
        'empty',
    ],
    'a renamed picture' => [
        fn(string $f): array => [
            'list.xlsx',
            tap("$f/a", fn($p) => file_put_contents($p, "\x89PNG\r\n\x1a\n" . random_bytes(400))),
        ],
        'This is a picture',
    ],
    'a renamed PDF' => [
        fn(string $f): array => ['list.xlsx', tap("$f/a", fn($p) => file_put_contents($p, "%PDF-1.7\n..."))],
        'No list can be read from this PDF',
    ],
    'a workbook cut in half' => [
        fn(string $f): array => [
            'list.xlsx',
            tap("$f/a", fn($p) => file_put_contents($p, substr((string) file_get_contents(workbook($f)), 0, 3000))),
        ],
        'cut off or damaged',
    ],
    'a workbook with a bit of it overwritten' => [
        fn(string $f): array => ['list.xlsx', tap("$f/a", fn($p) => file_put_contents($p, overwritten(workbook($f))))],
        'checksum',
    ],
    '200 columns' => [
        fn(string $f): array => [
            'list.csv',
            tap(
                "$f/a",
                fn($p) => file_put_contents(
                    $p,
                    implode(',', array_map(fn(int $i): string => "c$i", range(1, 200))) .
                        "\n" .
                        implode(',', range(1, 200)) .
                        "\n",
                ),
            ),
        ],
        '200 columns',
    ],
    'a password' => [
        fn(string $f): array => [
            'list.xlsx',
            tap(
                "$f/a",
                fn($p) => file_put_contents(
                    $p,
                    "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1" . mb_convert_encoding('EncryptedPackage', 'UTF-16LE', 'UTF-8'),
                ),
            ),
        ],
        'has a password',
    ],
    'the old format' => [
        fn(string $f): array => [
            'list.xls',
            tap("$f/a", fn($p) => file_put_contents($p, "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1" . str_repeat("\0", 500))),
        ],
        'old .xls format',
    ],
    'no header and no names' => [
        fn(string $f): array => ['list.csv', tap("$f/a", fn($p) => file_put_contents($p, "12,34,56\n78,90,12\n"))],
        'Put a row above the list',
    ],
    'a header and nobody below it' => [
        fn(string $f): array => ['list.csv', tap("$f/a", fn($p) => file_put_contents($p, "Name,Grade,Section\n"))],
        'nobody below it',
    ],
    'binary noise' => [
        fn(string $f): array => [
            'list.csv',
            tap("$f/a", fn($p) => file_put_contents($p, str_repeat("\x01\x02\x05\x7f", 300))),
        ],
        'binary data',
    ],
    'a packed folder' => [
        fn(string $f): array => ['list.xlsx', zipOf("$f/a", ['notes.txt' => 'hello'])],
        'packed folder',
    ],
    'a packed bomb' => [
        fn(string $f): array => [
            'list.xlsx',
            zipOf("$f/a", ['xl/workbook.xml' => '<x/>', 'xl/worksheets/sheet1.xml' => str_repeat('<row/>', 2_000_000)]),
        ],
        'unpacks to far more',
    ],
    'entities in the sheet' => [
        fn(string $f): array => [
            'list.xlsx',
            zipOf("$f/a", [
                'xl/workbook.xml' => '<workbook><sheets><sheet name="A"/></sheets></workbook>',
                'xl/worksheets/sheet1.xml' =>
                    '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><worksheet><sheetData><row ' .
                    'r="1"><c r="A1"><v>&b;</v></c></row></sheetData></worksheet>',
            ]),
        ],
        'spreadsheet',
    ],
    'a sheet that breaks off' => [
        fn(string $f): array => [
            'list.xlsx',
            zipOf("$f/a", [
                'xl/workbook.xml' => '<workbook><sheets><sheet name="A"/></sheets></workbook>',
                'xl/worksheets/sheet1.xml' =>
                    '<worksheet><sheetData><row r="1"><c r="A1" t="str"><v>Name</v></c></row><row r="2"><c',
            ]),
        ],
        'near row 2',
    ],
]);

it('refuses a file that is too large before reading it', function (): void {
    $world = World::make();
    config(['vantrel.upload_bytes' => 2048]);
    $this->actingAs($world->as('coordinator'))
        ->post(
            "/api/schools/$world->school/intakes",
            ['file' => UploadedFile::fake()->create('list.csv', 5)],
            ['Accept' => 'application/json'],
        )
        ->assertStatus(422)
        ->assertJsonPath('title', 'Something is not filled in right');
});

it(
    'keeps the row of a formula cell out of the plan, with the cell and the cure, and writes nothing of it',
    function (): void {
        $world = World::make();
        $folder = scratch();
        outside([
            '/usr/bin/python3',
            '-c',
            "import sys, openpyxl\nb = openpyxl.Workbook(); s = b.active\n" .
            "for r in (['Name','Grade'], ['Noor Haddad','=2+1'], ['Kai Wu', 3]): s.append(r)\n" .
            'b.save(sys.argv[1])',
            "$folder/formula.xlsx",
        ]);
        $as = $this->actingAs($world->as('coordinator'));
        $id = $as
            ->post(
                "/api/schools/$world->school/intakes",
                ['file' => new UploadedFile("$folder/formula.xlsx", 'formula.xlsx', null, null, true)],
                ['Accept' => 'application/json'],
            )
            ->assertOk()
            ->json('id');
        $problem = $as
            ->getJson("/api/intakes/$id/rows?verdict=cannot")
            ->assertJsonCount(1, 'rows')
            ->json('rows.0.problems.0');
        expect($problem['column'])->toBe('Grade')->and($problem['message'])->toContain('as values');
        $as->postJson("/api/intakes/$id/apply", [
            'fingerprint' => DB::table('imports')->where('id', $id)->value('fingerprint'),
        ])->assertJsonPath('state', 'applied');
        expect(DB::table('people')->where('given_name', 'Kai')->exists())
            ->toBeTrue()
            ->and(DB::table('people')->where('given_name', 'Noor')->exists())
            ->toBeFalse();
    },
);
