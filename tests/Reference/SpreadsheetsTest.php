<?php

declare(strict_types=1);

use App\Intake\Files\ListFile;
use App\Platform\SheetFormat;
use App\Platform\SheetOut;
use Tests\Support\Lists;
use Vantrel\Core\Table\Sheet;

const LIST_CSV =
    "Fall list,,,,,\n,,,,,\nStudent no,Name,Grade,Date of birth,Guardian,Guardian e-mail\n" .
    "020417,\"Haddad, Noor\",4,2016-03-08,Ann Haddad,ann@shore.example\n" .
    "020418,\"Żuławski, Mateusz\",5,2015-11-30,Zofia Żuławska,zofia@shore.example\n" .
    "020419,\"O’Dwyer, Saoirse\",K,2021-02-28,,\n020420,\"王, 小明\",3,2018-02-28,\"Wu, Mei\",mei@shore.example\n";

/** @param  list<Sheet>  $sheets */
function studentsIn(array $sheets): array
{
    return array_map(
        fn($s): array => [
            $s->number,
            $s->name,
            $s->studentNumber,
            $s->birthDate,
            $s->grade,
            $s->guardians,
            $s->problems,
        ],
        Lists::book($sheets)->contents->students,
    );
}

beforeEach(function (): void {
    $this->folder = scratch();
    file_put_contents("$this->folder/list.csv", LIST_CSV);
    $this->expected = studentsIn(ListFile::sheets("$this->folder/list.csv"));
});

it(
    'reads a list written by openpyxl the same as its .csv: text, dates and numbers as the program stores them',
    function (): void {
        outside([
            '/usr/bin/python3',
            '-c',
            <<<'PY'
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
            PY
            ,
            "$this->folder/list.csv",
            "$this->folder/openpyxl.xlsx",
        ]);
        expect($this->expected)
            ->toHaveCount(4)
            ->and(studentsIn(ListFile::sheets("$this->folder/openpyxl.xlsx")))
            ->toEqual($this->expected);
    },
);

it('reads a list written by LibreOffice the same as its .csv', function (): void {
    // Every column as text (2), so that LibreOffice keeps leading zeros as the office typed them; dates as dates (5,
    // YYYY-MM-DD).
    outside([
        'soffice',
        '-env:UserInstallation=file://' . $this->folder . '/profile',
        '--headless',
        '--convert-to',
        'xlsx:Calc MS Excel 2007 XML',
        '--infilter=CSV:44,34,76,1,1/2/2/2/3/1/4/5/5/2/6/2',
        '--outdir',
        $this->folder,
        "$this->folder/list.csv",
    ]);
    expect(studentsIn(ListFile::sheets("$this->folder/list.xlsx")))->toEqual($this->expected);
});

it('keeps a formula out wherever it was written, with the cell and the cure', function (): void {
    outside([
        '/usr/bin/python3',
        '-c',
        <<<'PY'
        import sys, openpyxl
        book = openpyxl.Workbook(); sheet = book.active
        sheet.append(['Name', 'Grade', 'Guardian e-mail'])
        sheet.append(['Noor Haddad', '=2+2', 'ann@shore.example'])
        sheet.append(['Kai Wu', 4, None])
        book.save(sys.argv[1])
        PY
        ,
        "$this->folder/formula.xlsx",
    ]);
    $lines = Lists::book(ListFile::sheets("$this->folder/formula.xlsx"))->contents->students;
    expect($lines[0]->problems[0]->column)
        ->toBe('Grade')
        ->and($lines[0]->problems[0]->message)
        ->toContain('formula')
        ->toContain('as values')
        ->and($lines[1]->problems)
        ->toBe([]);
});

it('reads what LibreOffice writes of the same list as .ods, .xls and a web page', function (): void {
    foreach (['ods' => 'calc8', 'xls' => 'MS Excel 97', 'html' => 'HTML (StarCalc)'] as $ending => $filter) {
        outside([
            'soffice',
            '-env:UserInstallation=file://' . $this->folder . '/profile',
            '--headless',
            '--convert-to',
            "$ending:$filter",
            '--infilter=CSV:44,34,76,1,1/2/2/2/3/2/4/5/5/2/6/2',
            '--outdir',
            $this->folder,
            "$this->folder/list.csv",
        ]);
        $read = studentsIn(ListFile::sheets("$this->folder/list.$ending"));
        if ($ending === 'html') {
            // A web page has no types: the numbers have lost their zeros, and nothing else.
            $read = array_map(
                fn(array $s): array => [$s[0], $s[1], sprintf('%06d', $s[2]), ...array_slice($s, 3)],
                $read,
            );
        }
        expect($read)->toEqual($this->expected, $ending);
    }
});

it('reads the text of a PDF that LibreOffice made, and says to check it closely', function (): void {
    file_put_contents(
        "$this->folder/small.csv",
        "Student no,Name,Grade,Date of birth,Guardian\n020417,\"Haddad, Noor\",4,2016-03-08,Ann Haddad\n" .
            "020418,\"Żuławski, Mateusz\",5,2015-11-30,Zofia Żuławska\n" .
            "020419,\"O’Dwyer, Saoirse\",5,2015-02-28,\n020420,\"Wu, Kai\",3,2018-02-28,Mei Wu\n",
    );
    outside([
        'soffice',
        '-env:UserInstallation=file://' . $this->folder . '/profile',
        '--headless',
        '--convert-to',
        'pdf',
        '--infilter=CSV:44,34,76,1,1/2/2/2/3/2/4/2/5/2',
        '--outdir',
        $this->folder,
        "$this->folder/small.csv",
    ]);
    $book = Lists::book(ListFile::sheets("$this->folder/small.pdf"));
    $read = array_values(array_filter($book->contents->students, fn($s): bool => $s->studentNumber !== ''));
    expect(
        array_map(
            fn($s): array => [$s->studentNumber, $s->name->full(), $s->grade, $s->birthDate, count($s->guardians)],
            $read,
        ),
    )
        ->toBe([
            ['020417', 'Noor Haddad', '04', '2016-03-08', 1],
            ['020418', 'Mateusz Żuławski', '05', '2015-11-30', 1],
            ['020419', 'Saoirse O’Dwyer', '05', '2015-02-28', 0],
            ['020420', 'Kai Wu', '03', '2018-02-28', 1],
        ])
        ->and(implode(' ', $book->contents->warnings))
        ->toContain('check the rows closely');
});

it('reads tables and plain lines of documents that python-docx wrote', function (): void {
    outside([
        '/usr/bin/python3',
        '-c',
        <<<'PY'
        import sys, docx
        d = docx.Document(); d.add_heading('Class list')
        t = d.add_table(rows=0, cols=3)
        for row in [['Student no', 'Name', 'Grade'], ['020417', 'Haddad, Noor', '4'], ['020418', 'Wu, Kai', '5']]:
            for cell, text in zip(t.add_row().cells, row): cell.text = text
        d.save(sys.argv[1])
        d = docx.Document()
        for line in ['Chess club, Monday 4 pm', '1. Noor Haddad', '2. Kai Wu', '3. Żuławski, Mateusz']:
            d.add_paragraph(line)
        d.save(sys.argv[2])
        PY
        ,
        "$this->folder/table.docx",
        "$this->folder/lines.docx",
    ]);
    $names = fn(string $file): array => array_map(
        fn($s): string => "$s->number {$s->name->full()} $s->studentNumber",
        Lists::book(ListFile::sheets("$this->folder/$file"))->contents->students,
    );
    expect($names('table.docx'))
        ->toBe(['2 Noor Haddad 020417', '3 Kai Wu 020418'])
        ->and($names('lines.docx'))
        ->toBe(['2 Noor Haddad ', '3 Kai Wu ', '4 Mateusz Żuławski ']);
});

it('reads every sheet of a workbook that is shown, each by its own name', function (): void {
    outside([
        '/usr/bin/python3',
        '-c',
        <<<'PY'
        import sys, openpyxl
        book = openpyxl.Workbook(); book.active.title = '4 Curlew'
        book.active.append(['Name', 'Grade']); book.active.append(['Noor Haddad', 4])
        chess = [['Name'], ['Noor Haddad'], ['Kai Wu']]
        for title, rows in {'Chess club': chess, 'Old': [['Name'], ['Gone Long']], 'Empty': []}.items():
            sheet = book.create_sheet(title)
            for row in rows: sheet.append(row)
        book['Old'].sheet_state = 'hidden'
        book.save(sys.argv[1])
        PY
        ,
        "$this->folder/sheets.xlsx",
    ]);
    expect(
        array_map(
            fn($s): array => [$s->sheet, $s->name->full(), $s->sections],
            Lists::book(ListFile::sheets("$this->folder/sheets.xlsx"))->contents->students,
        ),
    )->toBe([
        ['4 Curlew', 'Noor Haddad', ['4 Curlew']],
        ['Chess club', 'Noor Haddad', ['Chess club']],
        ['Chess club', 'Kai Wu', ['Chess club']],
    ]);
});

// The columns are those of the OneRoster specifications: 1.1 Final (IMS Global, 2017), CSV tables; 1.2 (1EdTech, 2022),
// CSV binding.
it('reads OneRoster bulk exports of both versions alike', function (): void {
    $write = function (string $name, array $tables): string {
        $zip = new ZipArchive();
        $zip->open("$this->folder/$name", ZipArchive::CREATE);
        foreach ($tables as $table => $lines) {
            $zip->addFromString("$table.csv", implode("\r\n", $lines) . "\r\n");
        }
        $zip->close();

        return "$this->folder/$name";
    };
    $common = [
        'orgs' => [
            'sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId',
            'o1,,,Lanternfield Primary,school,primary,',
            'o2,,,Copperbrook Middle,school,middle,',
        ],
        'classes' => [
            'sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds,subjects,subjectCodes,periods',
            'c1,,,4 Curlew,04,k,,homeroom,,o1,t,,,',
            'c2,,,"Art, 4",04,k,,scheduled,,o1,t,,,',
            'c9,,,Other,06,k,,scheduled,,o2,t,,,',
        ],
        'enrollments' => [
            'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate',
            'e1,,,c1,o1,u1,student,false,,',
            'e2,,,c2,o1,u1,student,false,,',
            'e3,tobedeleted,,c9,o1,u1,student,false,,',
            'e4,,,c1,o1,t1,teacher,true,,',
        ],
        'demographics' => ['sourcedId,status,dateLastModified,birthDate,sex', 'u1,,,2016-03-08,female'],
    ];
    $one = $write('one.zip', [
        'manifest' => ['propertyName,value', 'oneroster.version,1.1'],
        ...$common,
        'users' => [
            'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password',
            'u1,,,true,o1,student,noor,,Noor,Haddad,,020417,,,,g1,04,',
            'u2,,,true,o2,student,kai,,Kai,Wu,,020418,,,,,06,',
            'u3,tobedeleted,,true,o1,student,x,,Gone,Long,,020419,,,,,04,',
            'g1,,,true,o1,guardian,ann,,Ann,Haddad,,,ann@shore.example,(202) 555-0143,,u1,,',
            't1,,,true,o1,teacher,petra,,Petra,Okonjo,,,petra@shore.example,,,,,',
        ],
    ]);
    $two = $write('two.zip', [
        'manifest' => ['propertyName,value', 'oneroster.version,1.2'],
        ...$common,
        'users' => [
            'sourcedId,status,dateLastModified,enabledUser,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password,userMasterIdentifier,resourceSourcedIds,preferredGivenName,preferredMiddleName,preferredFamilyName,primaryOrgSourcedId,pronouns',
            'u1,,,true,noor,,Noor,Haddad,,020417,,,,g1,04,,,,,,,o1,',
            'u2,,,true,kai,,Kai,Wu,,020418,,,,,06,,,,,,,o2,',
            'g1,,,true,ann,,Ann,Haddad,,,ann@shore.example,(202) 555-0143,,,,,,,,,,o1,',
            't1,,,true,petra,,Petra,Okonjo,,,petra@shore.example,,,,,,,,,,,o1,',
        ],
        'roles' => [
            'sourcedId,status,dateLastModified,userSourcedId,roleType,role,beginDate,endDate,orgSourcedId,userProfileSourcedId',
            'r1,,,u1,primary,student,,,o1,',
            'r2,,,u2,primary,student,,,o2,',
            'r3,,,g1,primary,guardian,,,o1,',
            'r4,,,t1,primary,teacher,,,o1,',
        ],
    ]);
    $contents = fn(string $file) => Lists::book(ListFile::sheets($file, 'x.zip', 'Lanternfield Primary', 'primary'))
        ->contents;
    foreach ([$one, $two] as $file) {
        $read = $contents($file);
        expect(
            array_map(
                fn($s): array => [
                    $s->name->full(),
                    $s->studentNumber,
                    $s->birthDate,
                    $s->grade,
                    $s->homeroom,
                    $s->sections,
                    array_map(fn($g): array => [$g->name->full(), $g->email, $g->phone], $s->guardians),
                ],
                $read->students,
            ),
        )
            ->toBe([
                [
                    'Noor Haddad',
                    '020417',
                    '2016-03-08',
                    '04',
                    '4 Curlew',
                    ['Art, 4'],
                    [['Ann Haddad', 'ann@shore.example', '+12025550143']],
                ],
            ])
            ->and(array_map(fn($s): array => [$s->name->full(), $s->email, $s->sections, $s->role], $read->staff))
            ->toBe([['Petra Okonjo', 'petra@shore.example', ['4 Curlew'], 'lead']])
            ->and(array_map(fn($s): array => [$s->name, $s->homeroom, $s->grade], $read->sections))
            ->toBe([['4 Curlew', true, '04'], ['Art, 4', false, '04']]);
    }
    expect(fn() => ListFile::sheets($one, 'x.zip', 'Highmoor Upper', 'upper'))->toThrow(
        Vantrel\Core\Table\UnreadableList::class,
        'several schools',
    );
});

it('says that a workbook has a password', function (): void {
    // [MS-OFFCRYPTO]: an encrypted workbook is a compound file with a stream named EncryptedPackage; its name in
    // UTF-16.
    file_put_contents(
        "$this->folder/locked.xlsx",
        "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1" .
            str_repeat("\0", 600) .
            mb_convert_encoding('EncryptedPackage', 'UTF-16LE', 'UTF-8') .
            str_repeat("\0", 600),
    );
    ListFile::sheets("$this->folder/locked.xlsx");
})->throws(Vantrel\Core\Table\UnreadableList::class, 'has a password');

it('marks as text whatever a program could take for a formula', function (): void {
    $file = "$this->folder/out.csv";
    $cells = [
        '=1+1',
        '+1+1',
        '-1+1',
        '@SUM(1)',
        "\u{FF1D}1+1",
        "\u{FF0B}1",
        "\u{FF0D}1",
        "\u{FF20}SUM(1)",
        ' =1+1',
        "\u{200B}=1+1",
        "\u{2212}1",
        '|cmd',
        '%0A=1',
        "\t=1+1",
    ];
    SheetOut::write(SheetFormat::Csv, $file, [
        'A' => [
            ['Name', 'Note'],
            [...array_map(fn(string $c): array => [$c, 'x'], $cells), ['Ann Haddad', "O'Brien-Wu"]],
        ],
    ]);
    $csv = (string) file_get_contents($file);
    foreach ($cells as $cell) {
        expect($csv)->toContain("'$cell");
    }
    expect($csv)->toContain("O'Brien-Wu")->not->toContain("'Ann")->not->toContain("'O'");
    // An independent program opens it and finds text, no formula.
    outside([
        'soffice',
        "-env:UserInstallation=file://$this->folder/profile",
        '--headless',
        '--convert-to',
        'fods',
        '--infilter=CSV:44,34,76',
        '--outdir',
        $this->folder,
        $file,
    ]);
    expect((string) file_get_contents("$this->folder/out.fods"))
        ->toContain('Ann Haddad')
        ->not->toContain('table:formula');
});
