<?php

declare(strict_types=1);

use App\Intake\Files\ListFile;
use Tests\Support\Lists;
use Vantrel\Core\Table\Sheet;

const LIST_CSV = "Fall list,,,,,\n,,,,,\nStudent no,Name,Grade,Date of birth,Guardian,Guardian e-mail\n020417,\"Haddad, Noor\",4,2016-03-08,Ann Haddad,ann@shore.example\n020418,\"Żuławski, Mateusz\",5,2015-11-30,Zofia Żuławska,zofia@shore.example\n020419,\"O’Dwyer, Saoirse\",K,2021-02-28,,\n020420,\"王, 小明\",3,2018-02-28,\"Wu, Mei\",mei@shore.example\n";

/** @param  list<Sheet>  $sheets */
function studentsIn(array $sheets): array
{
    return array_map(fn ($s): array => [$s->number, $s->name, $s->studentNumber, $s->birthDate, $s->grade, $s->guardians, $s->problems], Lists::book($sheets)->contents->students);
}

beforeEach(function (): void {
    $this->folder = scratch();
    file_put_contents("$this->folder/list.csv", LIST_CSV);
    $this->expected = studentsIn(ListFile::sheets("$this->folder/list.csv"));
});

it('reads a list written by openpyxl the same as its .csv: text, dates and numbers as the program stores them', function (): void {
    outside(['/usr/bin/python3', '-c', <<<'PY'
        import csv, datetime, re, sys, openpyxl
        book = openpyxl.Workbook(); sheet = book.active
        for row in csv.reader(open(sys.argv[1], encoding='utf-8')):
            cells = []
            for cell in row:
                if re.fullmatch(r'\d{4}-\d\d-\d\d', cell): cells.append(datetime.date.fromisoformat(cell))
                elif re.fullmatch(r'[1-9]', cell): cells.append(int(cell))
                else: cells.append(cell or None)
            sheet.append(cells)
        book.save(sys.argv[2])
        PY, "$this->folder/list.csv", "$this->folder/openpyxl.xlsx"]);
    expect($this->expected)->toHaveCount(4)->and(studentsIn(ListFile::sheets("$this->folder/openpyxl.xlsx")))->toEqual($this->expected);
});

it('reads a list written by LibreOffice the same as its .csv', function (): void {
    // Every column as text (2), so that LibreOffice keeps leading zeros as the office typed them; dates as dates (5, YYYY-MM-DD).
    outside(['soffice', '-env:UserInstallation=file://'.$this->folder.'/profile', '--headless', '--convert-to', 'xlsx:Calc MS Excel 2007 XML', '--infilter=CSV:44,34,76,1,1/2/2/2/3/1/4/5/5/2/6/2', '--outdir', $this->folder, "$this->folder/list.csv"]);
    expect(studentsIn(ListFile::sheets("$this->folder/list.xlsx")))->toEqual($this->expected);
});

it('keeps a formula out wherever it was written, with the cell and the cure', function (): void {
    outside(['/usr/bin/python3', '-c', <<<'PY'
        import sys, openpyxl
        book = openpyxl.Workbook(); sheet = book.active
        sheet.append(['Name', 'Grade', 'Guardian e-mail']); sheet.append(['Noor Haddad', '=2+2', 'ann@shore.example']); sheet.append(['Kai Wu', 4, None])
        book.save(sys.argv[1])
        PY, "$this->folder/formula.xlsx"]);
    $lines = Lists::book(ListFile::sheets("$this->folder/formula.xlsx"))->contents->students;
    expect($lines[0]->problems[0]->column)->toBe('Grade')->and($lines[0]->problems[0]->message)->toContain('formula')->toContain('as values')
        ->and($lines[1]->problems)->toBe([]);
});

it('says that a workbook has a password', function (): void {
    // [MS-OFFCRYPTO]: an encrypted workbook is a compound file with a stream named EncryptedPackage; its name in UTF-16.
    file_put_contents("$this->folder/locked.xlsx", "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1".str_repeat("\0", 600).mb_convert_encoding('EncryptedPackage', 'UTF-16LE', 'UTF-8').str_repeat("\0", 600));
    ListFile::sheets("$this->folder/locked.xlsx");
})->throws(Vantrel\Core\Table\UnreadableList::class, 'has a password');
