<?php

declare(strict_types=1);

use App\Intake\Files\ListFile;
use Tests\Support\Lists;
use Vantrel\Core\Table\UnreadableList;

/**
 * A thousand files, each damaged in its own way: whatever comes of it is a list or a sentence, in bounded time and
 * memory. The two formats that are read in a process of their own cost its start, so there are fewer of them.
 */
it('makes a list or a sentence of a thousand damaged files', function (): void {
    $folder = scratch();
    $csv = "Student no,Name,Grade,DOB,Guardian,Guardian e-mail\n";
    for ($i = 0; $i < 60; $i++) {
        $csv .= sprintf(
            "02%04d,\"Żuławski%d, Noor\",%d,2016-03-%02d,Ann Haddad,ann%d@shore.example\n",
            $i,
            $i,
            ($i % 6) + 1,
            ($i % 28) + 1,
            $i,
        );
    }
    file_put_contents("$folder/list.csv", $csv);
    $soffice = ['soffice', "-env:UserInstallation=file://$folder/profile", '--headless', '--convert-to'];
    foreach (['xlsx', 'ods', 'xls', 'pdf', 'html'] as $ending) {
        outside([...$soffice, $ending, '--infilter=CSV:44,34,76', '--outdir', $folder, "$folder/list.csv"]);
    }
    outside([
        '/usr/bin/python3',
        '-c',
        "import csv,sys,docx\nd=docx.Document(); t=d.add_table(rows=0,cols=6)\n" .
        "for r in list(csv.reader(open(sys.argv[1],encoding='utf-8')))[:20]:\n" .
        "  for c,v in zip(t.add_row().cells,r): c.text=v\nd.save(sys.argv[2])",
        "$folder/list.csv",
        "$folder/list.docx",
    ]);
    $roster = new ZipArchive();
    $roster->open("$folder/list.zip", ZipArchive::CREATE);
    $roster->addFromString('manifest.csv', "propertyName,value\noneroster.version,1.1\n");
    $roster->addFromString(
        'users.csv',
        "sourcedId,status,orgSourcedIds,role,givenName,familyName,identifier,grades\n" .
            "u1,,o1,student,Noor,Haddad,020417,04\n",
    );
    $roster->close();
    mt_srand(404);
    $lists = $refused = 0;
    $slowest = 0.0;
    // Each kind of damage on each format; 1,004 files in all.
    foreach (
        ['csv' => 250, 'xlsx' => 300, 'ods' => 160, 'docx' => 120, 'html' => 80, 'zip' => 60, 'xls' => 20, 'pdf' => 14]
        as $ending => $n
    ) {
        $whole = (string) file_get_contents("$folder/list.$ending");
        for ($i = 0; $i < $n; $i++) {
            $bytes = $whole;
            match ($i % 6) {
                0 => (function () use (&$bytes): void {
                    for ($k = mt_rand(1, 12); $k > 0; $k--) {
                        $at = mt_rand(0, strlen($bytes) - 1);
                        $bytes[$at] = chr(ord($bytes[$at]) ^ (1 << mt_rand(0, 7)));
                    }
                })(),
                1 => ($bytes = substr($bytes, 0, mt_rand(1, strlen($bytes) - 1))),
                2 => ($bytes = substr($bytes, mt_rand(1, strlen($bytes) - 1))),
                3 => ($bytes = substr_replace(
                    $bytes,
                    random_bytes(mt_rand(1, 200)),
                    mt_rand(0, strlen($bytes) - 1),
                    mt_rand(0, 200),
                )),
                4 => ($bytes = substr_replace(
                    $bytes,
                    str_repeat($bytes[mt_rand(0, strlen($bytes) - 1)], mt_rand(1, 5000)),
                    mt_rand(0, strlen($bytes) - 1),
                    0,
                )),
                5 => (function () use (&$bytes): void {
                    $at = mt_rand(0, strlen($bytes) - 1);
                    $bytes = substr($bytes, $at) . substr($bytes, 0, $at);
                })(),
            };
            file_put_contents("$folder/damaged", $bytes);
            $from = hrtime(true);
            try {
                $book = Lists::book(ListFile::sheets("$folder/damaged", 'list.csv', 'Lanternfield Primary', 'primary'));
                $lists++;
                expect($book->contents->rows())->toBeGreaterThanOrEqual(0);
            } catch (UnreadableList $e) {
                $refused++;
                expect(strlen($e->getMessage()))->toBeGreaterThan(20);
            }
            $slowest = max($slowest, (hrtime(true) - $from) / 1e9);
        }
    }
    expect($lists + $refused)
        ->toBe(1004)
        ->and($lists)
        ->toBeGreaterThan(50)
        ->and($refused)
        ->toBeGreaterThan(300)
        ->and($slowest)
        ->toBeLessThan(20.0)
        ->and(memory_get_peak_usage(true))
        ->toBeLessThan(512 * 1048576);
});

it('makes a list or a sentence of what was built to do harm', function (Closure $make): void {
    $path = $make(scratch());
    $from = hrtime(true);
    try {
        $said = 'read ' . Lists::book(ListFile::sheets($path, 'list.csv'))->contents->rows();
    } catch (UnreadableList $e) {
        $said = $e->getMessage();
    }
    expect($said)
        ->not->toBe('')
        ->and((hrtime(true) - $from) / 1e9)
        ->toBeLessThan(20.0)
        ->and(memory_get_peak_usage(true))
        ->toBeLessThan(512 * 1048576);
})->with([
    'a million columns' => [
        fn(string $f): string => tap("$f/a", fn($p) => file_put_contents($p, str_repeat('x,', 1_000_000) . "\n")),
    ],
    'a million rows' => [
        fn(string $f): string => tap(
            "$f/a",
            fn($p) => file_put_contents($p, "Name\n" . str_repeat("a b\n", 1_000_000)),
        ),
    ],
    'one line of ten million letters' => [
        fn(string $f): string => tap("$f/a", fn($p) => file_put_contents($p, str_repeat('a', 10_000_000))),
    ],
    'nothing but quotes' => [
        fn(string $f): string => tap(
            "$f/a",
            fn($p) => file_put_contents($p, str_repeat('"', 999_999) . "\n" . str_repeat("\"\n", 100_000)),
        ),
    ],
    'deep XML in a sheet' => [
        fn(string $f): string => zipOf("$f/a", [
            'xl/workbook.xml' => '<workbook><sheets><sheet name="A"/></sheets></workbook>',
            'xl/worksheets/sheet1.xml' => str_repeat('<a>', 200_000) . str_repeat('</a>', 200_000),
        ]),
    ],
    'deep XML in a document' => [
        fn(string $f): string => zipOf("$f/a", [
            'word/document.xml' => str_repeat('<a>', 200_000) . str_repeat('</a>', 200_000),
        ]),
    ],
    'entities that multiply' => [
        fn(string $f): string => zipOf("$f/a", [
            'word/document.xml' =>
                '<!DOCTYPE d [<!ENTITY a "' .
                str_repeat('x', 1000) .
                '"><!ENTITY b "' .
                str_repeat('&a;', 1000) .
                '"><!ENTITY c "' .
                str_repeat('&b;', 1000) .
                '">]><d><p><t>&c;</t></p></d>',
        ]),
    ],
    'a file of the machine as an entity' => [
        fn(string $f): string => zipOf("$f/a", [
            'content.xml' =>
                '<!DOCTYPE d [<!ENTITY a SYSTEM ' .
                '"file:///etc/passwd">]><office:document-content>' .
                '<table:table><table:table-row><table:table-cell><text:p>&a;</text:p>' .
                '</table:table-cell></table:table-row></table:table></office:document-content>',
            'mimetype' => 'application/vnd.oasis.opendocument.spreadsheet',
        ]),
    ],
    'a web page a thousand tables deep' => [
        fn(string $f): string => tap(
            "$f/a",
            fn($p) => file_put_contents($p, '<html>' . str_repeat('<table><tr><td>', 3000) . 'x'),
        ),
    ],
    'cells that repeat a million times' => [
        fn(string $f): string => zipOf("$f/a", [
            'mimetype' => 'application/vnd.oasis.opendocument.spreadsheet',
            'META-INF/manifest.xml' => '<m/>',
            'content.xml' =>
                '<?xml version="1.0"?><office:document-content ' .
                'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' .
                'xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" ' .
                'xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0">' .
                '<office:body><office:spreadsheet><table:table ' .
                'table:name="A"><table:table-row table:number-rows-repeated="1000000"><table:table-cell ' .
                'table:number-columns-repeated="16384" ' .
                'office:value-type="string"><text:p>x</text:p></table:table-cell></table:table-row></table:table>' .
                '</office:spreadsheet></office:body></office:document-content>',
        ]),
    ],
    'a cell that repeats two thousand million times' => [
        fn(string $f): string => zipOf("$f/a", [
            'mimetype' => 'application/vnd.oasis.opendocument.spreadsheet',
            'META-INF/manifest.xml' => '<m/>',
            'content.xml' =>
                '<?xml version="1.0"?><office:document-content ' .
                'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' .
                'xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" ' .
                'xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0">' .
                '<office:body><office:spreadsheet><table:table ' .
                'table:name="A"><table:table-row><table:table-cell ' .
                'table:number-columns-repeated="2000000000" ' .
                'office:value-type="string"><text:p>x</text:p></table:table-cell></table:table-row></table:table>' .
                '</office:spreadsheet></office:body></office:document-content>',
        ]),
    ],
    'a cell that repeats more often than can be counted' => [
        fn(string $f): string => zipOf("$f/a", [
            'mimetype' => 'application/vnd.oasis.opendocument.spreadsheet',
            'META-INF/manifest.xml' => '<m/>',
            'content.xml' =>
                '<?xml version="1.0"?><office:document-content ' .
                'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' .
                'xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" ' .
                'xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0">' .
                '<office:body><office:spreadsheet><table:table ' .
                'table:name="A"><table:table-row><table:table-cell ' .
                'table:number-columns-repeated="99999999999999999999" ' .
                'office:value-type="string"><text:p>x</text:p></table:table-cell></table:table-row></table:table>' .
                '</office:spreadsheet></office:body></office:document-content>',
        ]),
    ],
    'an entity in the count' => [
        fn(string $f): string => zipOf("$f/a", [
            'mimetype' => 'application/vnd.oasis.opendocument.spreadsheet',
            'META-INF/manifest.xml' => '<m/>',
            'content.xml' =>
                '<?xml version="1.0"?><office:document-content ' .
                'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' .
                'xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" ' .
                'xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0">' .
                '<office:body><office:spreadsheet><table:table ' .
                'table:name="A"><table:table-row><table:table-cell ' .
                'table:number-columns-repeated="&#50;000000000" ' .
                'office:value-type="string"><text:p>x</text:p></table:table-cell></table:table-row></table:table>' .
                '</office:spreadsheet></office:body></office:document-content>',
        ]),
    ],
    'rows that repeat two thousand million times' => [
        fn(string $f): string => zipOf("$f/a", [
            'mimetype' => 'application/vnd.oasis.opendocument.spreadsheet',
            'META-INF/manifest.xml' => '<m/>',
            'content.xml' =>
                '<?xml version="1.0"?><office:document-content ' .
                'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' .
                'xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" ' .
                'xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0">' .
                '<office:body><office:spreadsheet><table:table ' .
                'table:name="A"><table:table-row table:number-rows-repeated="2000000000"><table:table-cell ' .
                'table:number-columns-repeated="1" ' .
                'office:value-type="string"><text:p>x</text:p></table:table-cell></table:table-row></table:table>' .
                '</office:spreadsheet></office:body></office:document-content>',
        ]),
    ],
    'a spreadsheet as XML with entities' => [
        fn(string $f): string => tap(
            "$f/a",
            fn($p) => file_put_contents(
                $p,
                '<?xml version="1.0"?><!DOCTYPE d [<!ENTITY a "aaaa">]><Workbook ' .
                    'xmlns="urn:schemas-microsoft-com:office:spreadsheet">' .
                    '<Worksheet><Table><Row><Cell><Data>&a;</Data></Cell></Row></Table></Worksheet></Workbook>',
            ),
        ),
    ],
]);
