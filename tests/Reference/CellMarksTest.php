<?php

declare(strict_types=1);

use App\Intake\Files\ListFile;
use Tests\Support\Lists;
use Vantrel\Core\Intake\ListContents;

/**
 * A workbook written by openpyxl and turned into OpenDocument by LibreOffice says the same in both: what is shown, what
 * is hidden, struck out and merged (ECMA-376 Part 1, 18.3 and 18.8; ISO/IEC 26300-1, 9 and 16).
 */
function markedWorkbook(string $folder): void
{
    outside([
        '/usr/bin/python3',
        '-c',
        "import sys, openpyxl\nfrom openpyxl.styles import Font\nb = openpyxl.Workbook(); s = b.active\n" .
        "for r in [['Name','ID','Grade','Homeroom','Email'],['Ada Quill',20417,3,'3A','a@s.example'],\n" .
        "  ['Tim Rowe',20418,3],\n" .
        "  ['Kai Wu',20419,4,'4A','k@s.example'],['Noor Haddad',20420,4,'4B'],\n" .
        "  ['Bo Vale',20421,5,'5A']]: s.append(r)\n" .
        "for i in range(2, 7): s.cell(i, 2).number_format = '000000'\n" .
        "s.merge_cells('D2:D3'); s.row_dimensions[5].hidden = True; s.column_dimensions['E'].hidden = True\n" .
        "for c in s[6]: c.font = Font(strike=True)\nb.save(sys.argv[1])",
        "$folder/marked.xlsx",
    ]);
    outside([
        'soffice',
        "-env:UserInstallation=file://$folder/profile",
        '--headless',
        '--convert-to',
        'ods',
        '--outdir',
        $folder,
        "$folder/marked.xlsx",
    ]);
}

it('reads what a workbook shows, whichever program wrote it', function (): void {
    $folder = scratch();
    markedWorkbook($folder);
    foreach (['xlsx', 'ods'] as $ending) {
        $read = fn(array $said): ListContents => Lists::book(ListFile::sheets("$folder/marked.$ending"), $said)
            ->contents;
        $contents = $read([]);
        expect(array_map(fn($s): string => "$s->number $s->studentNumber $s->homeroom", $contents->students))
            ->toBe(['2 020417 3A', '3 020418 3A', '4 020419 4A'])
            ->and(implode(' ', $contents->warnings))
            ->toContain('Row 5 is hidden')
            ->toContain('Row 6 is struck out')
            ->toContain('Column E is hidden in the file, and read all the same.')
            ->and(array_map(fn($q): string => $q->id, $contents->questions))
            ->toBe(['s0.hidden']);
        $taken = $read(['s0.hidden' => 'take', 's0.r6' => 'row']);
        expect(array_map(fn($s): string => "$s->number $s->studentNumber", $taken->students))->toBe([
            '2 020417',
            '3 020418',
            '4 020419',
            '5 020420',
            '6 020421',
        ]);
    }
});
