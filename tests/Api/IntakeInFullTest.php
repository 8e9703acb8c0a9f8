<?php

declare(strict_types=1);

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->as = $this->actingAs($this->world->as('coordinator'));
    $this->bring = fn(array $body): array => $this->as
        ->post("/api/schools/{$this->world->school}/imports", $body, ['Accept' => 'application/json'])
        ->assertOk()
        ->json();
    $this->csv = fn(string $csv, string $name = 'list.csv'): array => ($this->bring)([
        'files' => [UploadedFile::fake()->createWithContent($name, $csv)],
    ]);
    $this->show = fn(string $id): array => $this->as
        ->getJson("/api/imports/$id")
        ->assertOk()
        ->json();
    $this->answer = fn(string $id, array $answers): array => $this->as
        ->postJson("/api/imports/$id/answers", ['answers' => $answers])
        ->assertOk()
        ->json();
    $this->apply = fn(string $id, array $more = []) => $this->as->postJson("/api/imports/$id/apply", [
        'fingerprint' => ($this->show)($id)['fingerprint'],
        ...$more,
    ]);
    $this->rows = fn(string $id, string $verdict = ''): array => $this->as
        ->getJson("/api/imports/$id/rows" . ($verdict === '' ? '' : "?verdict=$verdict"))
        ->assertOk()
        ->json('rows');
});

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

it(
    'reads a list as everyone: shows who leaves, wants words past the trip-wire and the password, and undoes it whole',
    function (): void {
        manyStudents($this->world, 30);
        $before = World::checksum();
        $id = ($this->csv)("Student number,Name\n020001,Wilhelmina Seabright\n030000,Pupilaa Familya\n")['id'];
        expect(($this->show)($id)['leaving'])->toBe(0);
        $this->as->postJson("/api/imports/$id/everyone", ['everyone' => 'school'])->assertOk();
        $list = ($this->show)($id);
        expect($list['leaving'])
            ->toBe(29)
            ->and($list['words'])
            ->toBe('29 leave')
            ->and($list['blockers'][0])
            ->toContain('29 of 31')
            ->toContain('“29 leave”')
            ->and(($this->rows)($id, 'leaving'))
            ->toHaveCount(29)
            ->and($list['sentence'])
            ->toContain('marks 29 students as having left');
        ($this->apply)($id)->assertStatus(422);
        $this->as->postJson("/api/imports/$id/everyone", ['everyone' => 'school', 'words' => '28 leave'])->assertOk();
        expect(($this->show)($id)['blockers'])->not->toBe([]);
        $this->as->postJson("/api/imports/$id/everyone", ['everyone' => 'school', 'words' => '29 leave'])->assertOk();
        expect(($this->show)($id)['blockers'])->toBe([])->and(($this->show)($id)['confirmed'])->toBeTrue();
        ($this->apply)($id)
            ->assertStatus(422)
            ->assertJsonPath('errors.password.0', fn(string $m): bool => str_contains($m, 'password'));
        ($this->apply)($id, ['password' => 'not this one'])->assertStatus(422);
        expect(World::checksum())->toBe($before);
        ($this->apply)($id, ['password' => 'lantern harbor morning'])->assertOk();
        expect(DB::table('people')->where('state', 'left')->count())
            ->toBe(29)
            ->and(DB::table('enrollments')->where('role', 'student')->whereNull('ends_on')->count())
            ->toBe(2);
        $entry = ($this->show)($id)['entryId'];
        $this->as->postJson("/api/ledger/$entry/undo")->assertOk();
        expect(World::checksum())->toBe($before);
    },
);

it(
    'takes students out of one section only when a list is everyone of it, and keeps those whose rows wait',
    function (): void {
        $kai = $this->world->student('Kai Wu', $this->world->section, ['number' => '020002', 'grade' => '03']);
        $mei = $this->world->student('Mei Chen', $this->world->section, ['number' => '020003', 'grade' => '03']);
        $id = ($this->csv)("Student number,Name,Grade\n020001,Wilhelmina Seabright,3\n020003,Mei Chen,not a grade\n")[
            'id'
        ];
        $this->as->postJson("/api/imports/$id/everyone", ['everyone' => "section:{$this->world->section}"])->assertOk();
        expect(array_column(($this->rows)($id, 'leaving'), 'matchId'))
            ->toBe([$kai])
            ->and(($this->show)($id)['sentence'])
            ->toContain('out of the section');
        $this->as
            ->postJson("/api/imports/$id/everyone", ['everyone' => 'section:' . str_repeat('0', 26)])
            ->assertStatus(422);
        $this->as->postJson("/api/imports/$id/everyone", ['everyone' => 'grade:nine'])->assertStatus(422);
        ($this->apply)($id, ['password' => 'lantern harbor morning'])->assertOk();
        expect(DB::table('people')->where('id', $kai)->value('state'))
            ->toBe('active')
            ->and(DB::table('enrollments')->where('person_id', $kai)->whereNull('ends_on')->exists())
            ->toBeFalse()
            ->and(DB::table('enrollments')->where('person_id', $mei)->whereNull('ends_on')->exists())
            ->toBeTrue();
    },
);

it('gives the rows that need work back as a workbook, and takes them in again mended', function (): void {
    $id = ($this->csv)(
        "Fall list\nStudent no,Name,Grade,Guardian e-mail\n020009,=cmd|calc,3,ann@x.example\n" .
            "1.2E+05,Kai Wu,3,\n,Mei Chen,third,mei at x\n020010,Bo Ek,3,bo@x.example\n",
    )['id'];
    $file = scratch() . '/mend.xlsx';
    file_put_contents(
        $file,
        $this->as
            ->get("/api/imports/$id/rows-to-mend")
            ->assertOk()
            ->assertDownload()
            ->streamedContent() ?:
        file_get_contents(
            $this->as
                ->get("/api/imports/$id/rows-to-mend")
                ->baseResponse->getFile()
                ->getPathname(),
        ),
    );
    $cells = json_decode(
        outside([
            '/usr/bin/python3',
            '-c',
            'import openpyxl,json,sys; s=openpyxl.load_workbook(sys.argv[1]).active; ' .
            'print(json.dumps([[[c.value, c.font.b, c.data_type] for c in r] for r in s.iter_rows()]))',
            $file,
        ]),
        true,
    );
    $values = array_map(fn(array $r): array => array_column($r, 0), $cells);
    expect($values[0])
        ->toBe(['Student no', 'Name', 'Grade', 'Guardian e-mail', 'What to do'])
        ->and($values)
        ->toHaveCount(3)
        ->and($values[1][0])
        ->toBe('1.2E+05')
        ->and($values[1][4])
        ->toContain('as text')
        ->and($cells[1][0][1])
        ->toBeTrue()
        ->and($cells[1][1][1])
        ->toBeFalse()
        ->and($values[2][4])
        ->toContain('Grade:')
        ->toContain('Guardian e-mail:')
        ->and($cells[2][2][1])
        ->toBeTrue();
    outside([
        '/usr/bin/python3',
        '-c',
        'import openpyxl,sys; w=openpyxl.load_workbook(sys.argv[1]); s=w.active; s["A2"]="020011"; ' .
        's["C3"]="3"; s["D3"]="mei@x.example"; w.save(sys.argv[1])',
        $file,
    ]);
    $again = ($this->bring)(['files' => [new UploadedFile($file, 'mend.xlsx', null, null, true)]])['id'];
    $list = ($this->show)($again);
    expect($list['verdicts']['new'])
        ->toBe(2)
        ->and($list['verdicts']['cannot'])
        ->toBe(0)
        ->and(array_column($list['sheets'][0]['columns'], 'field'))
        ->toBe(['student_number', 'full_name', 'grade', 'guardian_email', null]);
});

it('sends a section’s roster out and takes guardians, names and membership back as a plan', function (): void {
    $this->world->student('Kai Wu', $this->world->section, ['number' => '020002', 'grade' => '03']);
    $sheet = scratch() . '/roster.xlsx';
    $path = $this->as
        ->get("/api/sections/{$this->world->section}/roster?format=xlsx")
        ->assertOk()
        ->baseResponse->getFile()
        ->getPathname();
    copy($path, $sheet);
    copy($path, "$sheet.first");
    $unchanged = ($this->bring)(['files' => [new UploadedFile("$sheet.first", 'roster.xlsx', null, null, true)]])['id'];
    expect(($this->show)($unchanged))->changes->toBe(0)->rosterOf->toBe($this->world->section);
    outside([
        '/usr/bin/python3',
        '-c',
        <<<'PY'
        import openpyxl, sys
        w = openpyxl.load_workbook(sys.argv[1]); s = w.active
        head = [c.value for c in s[1]]
        for row in s.iter_rows(min_row=2):
            if row[head.index('Family name')].value == 'Seabright':
                row[head.index('Given name')].value = 'Willa'
                row[head.index('Guardian 1 e-mail')].value = 'new@shoremail.example'
            else:
                gone = row[0].row
        s.delete_rows(gone); w.save(sys.argv[1])
        PY
        ,
        $sheet,
    ]);
    $id = ($this->bring)(['files' => [new UploadedFile($sheet, 'roster.xlsx', null, null, true)]])['id'];
    $this->as->postJson("/api/imports/$id/everyone", ['everyone' => "section:{$this->world->section}"])->assertOk();
    expect(($this->show)($id)['leaving'])
        ->toBe(1)
        ->and(($this->show)($id)['verdicts']['update'])
        ->toBe(1);
    // The guardian's address is confirmed: a new one is asked about, and both are told.
    $question = ($this->show)($id)['questions'][0];
    expect($question['text'])->toBe('Does Hélène Marchetti have another address now (row 2)?');
    DB::table('sign_ins')
        ->where('person_id', $this->world->people['guardian'])
        ->update(['last_signed_in_at' => now()]);
    $this->as->postJson("/api/imports/$id/answers", ['answers' => [$question['id'] => 'take']])->assertOk();
    ($this->apply)($id, ['password' => 'lantern harbor morning'])->assertOk();
    expect(DB::table('outgoing_messages')->orderBy('id')->pluck('to_address')->all())
        ->toBe(['helene@shoremail.example', 'new@shoremail.example'])
        ->and(DB::table('people')->where('id', $this->world->people['guardian'])->value('email_state'))
        ->toBe('claimed');
    expect(DB::table('people')->where('id', $this->world->people['student'])->value('given_name'))
        ->toBe('Willa')
        ->and(DB::table('people')->where('id', $this->world->people['guardian'])->value('email'))
        ->toBe('new@shoremail.example')
        ->and(DB::table('people')->where('kind', 'guardian')->count())
        ->toBe(1);
});

it('keeps personal addresses out of a teacher’s roster, and reads it as of any day', function (): void {
    $open = fn(string $role, string $more = ''): string => (string) file_get_contents(
        $this->actingAs($this->world->as($role))
            ->get("/api/sections/{$this->world->section}/roster?format=csv$more")
            ->assertOk()
            ->baseResponse->getFile()
            ->getPathname(),
    );
    expect($open('lead'))
        ->toContain('Seabright')
        ->not->toContain('shoremail')
        ->not->toContain('2018-02-11')
        ->not->toContain('Guardian');
    expect($open('coordinator'))->toContain('helene@shoremail.example')->toContain('2018-02-11');
    expect($open('lead', '&as_of=2026-08-23'))->not->toContain('Seabright');
    DB::table('enrollments')
        ->where('person_id', $this->world->people['student'])
        ->update(['ends_on' => '2026-09-10']);
    expect($open('lead', '&as_of=2026-09-09'))
        ->toContain('Seabright')
        ->and($open('lead', '&as_of=2026-09-10'))
        ->not->toContain('Seabright');
});

it('lets no cell run when an export is opened', function (string $format): void {
    $this->world->student('=HYPERLINK("http://x.example") @SUM(1)', $this->world->section, [
        'number' => '+1+1',
        'grade' => '03',
    ]);
    DB::table('people')
        ->where('id', $this->world->people['guardian'])
        ->update(['phone' => '+12025550143', 'family_name' => '-2+3']);
    $file = scratch() . "/roll.$format";
    copy(
        $this->as
            ->get("/api/schools/{$this->world->school}/roster?format=$format")
            ->assertOk()
            ->baseResponse->getFile()
            ->getPathname(),
        $file,
    );
    if ($format === 'csv') {
        foreach (str_getcsv(str_replace("\n", ',', (string) file_get_contents($file))) as $cell) {
            expect(preg_match('/^[=+\-@\t\r]/', (string) $cell))->toBe(0);
        }
    } else {
        // LibreOffice would work a formula out: it must find text, as it was typed.
        outside([
            'soffice',
            '--headless',
            '--convert-to',
            'csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,true,false,true',
            '--outdir',
            dirname($file) . '/out',
            $file,
        ]);
        $text = (string) file_get_contents(dirname($file) . '/out/roll.csv');
        expect($text)->toContain('=HYPERLINK(')->toContain('+1+1')->toContain('-2+3');
    }
})->with(['csv', 'xlsx', 'ods']);

it('writes a OneRoster 1.2 export that comes back as nothing to do', function (): void {
    $file = scratch() . '/school.zip';
    copy(
        $this->as
            ->get("/api/schools/{$this->world->school}/roster?format=oneroster")
            ->assertOk()
            ->baseResponse->getFile()
            ->getPathname(),
        $file,
    );
    $names = explode("\n", trim(outside(['unzip', '-Z1', $file])));
    sort($names);
    expect($names)->toBe([
        'academicSessions.csv',
        'classes.csv',
        'courses.csv',
        'demographics.csv',
        'enrollments.csv',
        'manifest.csv',
        'orgs.csv',
        'roles.csv',
        'users.csv',
    ]);
    $manifest = outside(['unzip', '-p', $file, 'manifest.csv']);
    expect($manifest)
        ->toContain('oneroster.version,1.2')
        ->toContain('file.users,bulk')
        ->toContain('file.results,absent');
    $id = ($this->bring)(['files' => [new UploadedFile($file, 'school.zip', null, null, true)]])['id'];
    expect(($this->show)($id))->changes->toBe(0)->total->toBeGreaterThan(5);
});

it('takes several files as one intake: students and their guardians together', function (): void {
    $id = ($this->bring)([
        'files' => [
            UploadedFile::fake()->createWithContent(
                'students.csv',
                "Student number,Name,Grade\n020500,Noor Haddad,3\n",
            ),
            UploadedFile::fake()->createWithContent(
                'guardians.csv',
                "Student number,Guardian,Email\n020500,Ann Haddad,ann@x.example\n020999,Bo Ek,bo@x.example\n",
            ),
        ],
    ])['id'];
    $list = ($this->show)($id);
    expect(array_column($list['sheets'], 'label'))
        ->toBe(['students', 'guardians'])
        ->and(array_column($list['sheets'], 'kind'))
        ->toBe(['students', 'guardians'])
        ->and(array_map(fn(array $r): array => [$r['sheet'], $r['number'], $r['verdict']], ($this->rows)($id)))
        ->toBe([['students', 2, 'new'], ['guardians', 3, 'cannot'], ['guardians', 2, 'same']]);
    ($this->apply)($id)->assertOk();
    expect(
        DB::table('guardianships as g')
            ->join('people as p', 'p.id', '=', 'g.student_id')
            ->where('p.number', '020500')
            ->count(),
    )->toBe(1);
});

it('takes a paste: cells as a table, and plain lines, and leaves no copy behind', function (): void {
    $left = glob(sys_get_temp_dir() . '/paste*') ?: [];
    $table = ($this->bring)([
        'text' => "Name\tGrade\nNoor Haddad\t3",
        'html' => '<table><tr><th>Name</th><th>Grade</th></tr><tr><td>Zoë&nbsp;Lefèvre</td><td>3</td></tr></table>',
    ])['id'];
    expect(($this->rows)($table)[0]['cells']['Name']['after'])->toBe('Zoë Lefèvre');
    expect(glob(sys_get_temp_dir() . '/paste*') ?: [])->toBe($left);
    $lines = ($this->bring)(['text' => "Noor Haddad\nKai Wu\nMei Chen\n"])['id'];
    expect(($this->show)($lines))
        ->total->toBe(3)
        ->and(($this->show)($lines)['sheets'][0]['headerRow'])
        ->toBeNull();
    $this->as
        ->post("/api/schools/{$this->world->school}/imports", [], ['Accept' => 'application/json'])
        ->assertStatus(422);
});

it('remembers what was said of a file’s shape for the next one, and answers for the very same file', function (): void {
    $id = ($this->csv)("Label,Where,Grade,Student number\nNoor Haddad,3 Heron,3,020501\nKai Wu,3 Heron,3,020502\n")[
        'id'
    ];
    ($this->answer)($id, ['t0.c0' => 'full_name', 't0.c1' => 'homeroom', 't0.names' => 'given']);
    expect(($this->show)($id)['verdicts']['new'])->toBe(2);
    ($this->apply)($id)->assertOk();
    $next = ($this->csv)("Label,Where,Grade,Student number\nMei Chen,3 Heron,3,020503\nAda Rao,3 Heron,3,020504\n")[
        'id'
    ];
    $sheet = ($this->show)($next)['sheets'][0];
    expect(array_column($sheet['columns'], 'field'))
        ->toBe(['full_name', 'homeroom', 'grade', 'student_number'])
        ->and(array_column($sheet['columns'], 'why'))
        ->toBe(['as you said', 'as you said', 'by its heading', 'by its heading']);
    // Another school has said nothing of it.
    expect(DB::table('column_mappings')->pluck('school_id')->unique()->all())->toBe([$this->world->school]);
});

it('keeps the answers when the same file is dropped in again', function (): void {
    $csv = "Name,Grade,Student number\nWilhelmina Seabright,3,999999\n";
    $id = ($this->csv)($csv)['id'];
    $question = ($this->show)($id)['questions'][0];
    ($this->answer)($id, [$question['id'] => 'other']);
    $again = ($this->csv)($csv, 'renamed.csv')['id'];
    expect(($this->show)($again)['questions'][0]['answer'])->toBe('other');
});

it('notices a mail domain that the school has not named and adds it through the ledger', function (): void {
    $csv = "Name,E-mail\n";
    foreach (['Noor Haddad', 'Kai Wu', 'Mei Chen', 'Ada Rao', 'Bo Ek', 'Uma Iyer'] as $i => $name) {
        $csv .= "$name,pupil$i@copperbrook.example\n";
    }
    $id = ($this->csv)($csv)['id'];
    expect(($this->show)($id)['domains'])->toBe(['copperbrook.example']);
    $this->as->postJson("/api/imports/$id/domain", ['domain' => 'evil.example'])->assertStatus(422);
    $this->as->postJson("/api/imports/$id/domain", ['domain' => 'copperbrook.example'])->assertOk();
    expect(DB::table('schools')->where('id', $this->world->school)->value('mail_domains'))
        ->toBe('["lanternfield.example","copperbrook.example"]')
        ->and(DB::table('ledger_entries')->value('title'))
        ->toBe('Mail domain copperbrook.example')
        ->and(($this->show)($id)['domains'])
        ->toBe([]);
    $entry = DB::table('ledger_entries')->value('id');
    $this->as->postJson("/api/ledger/$entry/undo")->assertOk();
    expect(DB::table('schools')->where('id', $this->world->school)->value('mail_domains'))->toBe(
        '["lanternfield.example"]',
    );
});

it('lets one of two coordinators win and shows the other what changed, with a fresh plan', function (): void {
    $csv = "Student number,Name,Grade\n020001,Wilhelmina Seabright,";
    $mine = ($this->csv)($csv . "4\n")['id'];
    $theirs = ($this->csv)($csv . "5\n")['id'];
    $seen = ($this->show)($theirs)['fingerprint'];
    ($this->apply)($mine)->assertOk();
    $this->as->postJson("/api/imports/$theirs/apply", ['fingerprint' => $seen])->assertOk();
    $list = ($this->show)($theirs);
    expect($list['state'])
        ->toBe('planned')
        ->and($list['message'])
        ->toContain('Since you looked')
        ->and($list['fingerprint'])
        ->not->toBe($seen)
        ->and(DB::table('people')->where('number', '020001')->value('grade'))
        ->toBe('04')
        ->and(($this->rows)($theirs)[0]['cells']['Grade'])
        ->toBe(['before' => '4', 'after' => '5']);
});

it('brings in staff and sections, and tells a second lead from the first', function (): void {
    $id = ($this->bring)([
        'files' => [
            UploadedFile::fake()->createWithContent(
                'sections.csv',
                "Class,Teacher,Teacher email,Grade\nArt 3,Petra Okonjo,petra.okonjo@lanternfield.example,3\n" .
                    "3 Heron,Ruben Aske,ruben.aske@lanternfield.example,\n",
            ),
            UploadedFile::fake()->createWithContent(
                'staff.csv',
                "Staff name,Email,Role,Classes\nNew Person,new.person@lanternfield.example,Aide,Art 3\n" .
                    "No Mail,,Teacher,\nHélène Marchetti,helene@shoremail.example,Teacher,\n",
            ),
        ],
    ])['id'];
    expect(array_map(fn(array $r): array => [$r['sheet'], $r['number'], $r['verdict']], ($this->rows)($id)))->toBe([
        ['sections', 2, 'new'],
        ['sections', 3, 'update'],
        ['staff', 2, 'new'],
        ['staff', 3, 'cannot'],
        ['staff', 4, 'cannot'],
    ]);
    ($this->apply)($id)->assertOk();
    $roles = fn(string $name): array => DB::table('enrollments as e')
        ->join('sections as s', 's.id', '=', 'e.section_id')
        ->join('people as p', 'p.id', '=', 'e.person_id')
        ->where('s.name', $name)
        ->where('e.role', '!=', 'student')
        ->whereNull('e.ends_on')
        ->orderBy('p.given_name')
        ->pluck('e.role', 'p.given_name')
        ->all();
    expect($roles('Art 3'))
        ->toBe(['New' => 'assistant', 'Petra' => 'lead'])
        ->and($roles('3 Heron')['Ruben'])
        ->toBe('co_teacher')
        ->and($roles('3 Heron')['Petra'])
        ->toBe('lead')
        ->and(DB::table('sign_ins')->where('user_name', 'new.person@lanternfield.example')->exists())
        ->toBeTrue();
    expect(
        ($this->show)(
            ($this->bring)([
                'files' => [
                    UploadedFile::fake()->createWithContent(
                        'sections.csv',
                        "Class,Teacher,Teacher email,Grade\nArt 3,Petra Okonjo,petra.okonjo@lanternfield.example,3\n",
                    ),
                ],
            ])['id'],
        )['changes'],
    )->toBe(0);
});

it('does the same from the command line: everyone, words, several files, a roster', function (): void {
    manyStudents($this->world, 25);
    $folder = scratch();
    file_put_contents("$folder/list.csv", "Student number,Name\n020001,Wilhelmina Seabright\n");
    $before = World::checksum();
    expect(
        Artisan::call('vantrel:plan', [
            'file' => ["$folder/list.csv"],
            '--school' => 'primary',
            '--mode' => 'everyone',
            '--json' => true,
        ]),
    )->toBe(0);
    $plan = json_decode(Artisan::output(), true);
    expect($plan['leaving'])
        ->toHaveCount(25)
        ->and($plan['leaving'][0])
        ->toHaveKeys(['student_number', 'name', 'why'])
        ->and($plan['blockers'][0])
        ->toContain('25 leave');
    expect(
        Artisan::call('vantrel:apply', [
            'file' => ["$folder/list.csv"],
            '--school' => 'primary',
            '--mode' => 'everyone',
        ]),
    )
        ->toBe(1)
        ->and(World::checksum())
        ->toBe($before);
    expect(
        Artisan::call('vantrel:apply', [
            'file' => ["$folder/list.csv"],
            '--school' => 'primary',
            '--mode' => 'everyone',
            '--confirm' => '25 leave',
        ]),
    )
        ->toBe(0)
        ->and(DB::table('people')->where('state', 'left')->count())
        ->toBe(25);
    expect(
        Artisan::call('vantrel:plan', ['file' => ["$folder/list.csv"], '--school' => 'primary', '--mode' => 'all']),
    )->toBe(2);
    expect(
        Artisan::call('vantrel:roster', [
            '--section' => $this->world->section,
            '--format' => 'csv',
            '--out' => "$folder/r.csv",
        ]),
    )
        ->toBe(0)
        ->and((string) file_get_contents("$folder/r.csv"))
        ->toContain('Seabright');
    expect(Artisan::call('vantrel:roster', ['--school' => 'nowhere', '--out' => "$folder/r.csv"]))
        ->toBe(2)
        ->and(
            Artisan::call('vantrel:roster', ['--school' => 'primary', '--format' => 'pdf', '--out' => "$folder/r.csv"]),
        )
        ->toBe(2);
});

it('takes nightly lists from a folder, applies what is settled and reports to the Mailroom', function (): void {
    $folder = scratch();
    file_put_contents("$folder/a-new.csv", "Student number,Name,Grade\n020600,Noor Haddad,3\n020601,Kai Wu,nine\n");
    file_put_contents("$folder/b-broken.xlsx", "PK\x03\x04 not a workbook");
    expect(Artisan::call('vantrel:watch', ['folder' => $folder, '--school' => 'primary']))
        ->toBe(0)
        ->and(glob("$folder/*.csv"))
        ->toHaveCount(1);
    expect(Artisan::call('vantrel:watch', ['folder' => $folder, '--school' => 'primary', '--now' => true]))->toBe(1);
    expect(glob("$folder/done/*a-new.csv"))
        ->toHaveCount(1)
        ->and(glob("$folder/stopped/*b-broken.xlsx"))
        ->toHaveCount(1)
        ->and(glob("$folder/*.*"))
        ->toBe([])
        ->and(DB::table('people')->where('number', '020600')->exists())
        ->toBeTrue();
    $mail = DB::table('outgoing_messages')
        ->orderBy('id')
        ->get(['to_address', 'subject', 'text', 'school_id']);
    expect($mail->pluck('subject')->all())
        ->toBe(['a-new.csv: applied', 'b-broken.xlsx: stopped'])
        ->and($mail[0]->to_address)
        ->toBe('ines.halloran@lanternfield.example')
        ->and($mail[0]->text)
        ->toContain('adds 1 student')
        ->toContain('row 3: a cell cannot be read, Grade')
        ->not->toContain('Haddad')
        ->and($mail[1]->text)
        ->toContain('Nothing was written')
        ->and($mail[1]->school_id)
        ->toBe($this->world->school);
    expect(Artisan::call('vantrel:watch', ['folder' => "$folder/none", '--school' => 'primary']))->toBe(2);
});

it('stops a nightly list of everyone at the trip-wire, with nothing written', function (): void {
    manyStudents($this->world, 30);
    $folder = scratch();
    file_put_contents("$folder/all.csv", "Student number,Name\n020001,Wilhelmina Seabright\n");
    $before = World::checksum();
    expect(
        Artisan::call('vantrel:watch', [
            'folder' => $folder,
            '--school' => 'primary',
            '--mode' => 'everyone',
            '--now' => true,
        ]),
    )
        ->toBe(1)
        ->and(World::checksum())
        ->toBe($before)
        ->and(DB::table('outgoing_messages')->value('text'))
        ->toContain('30 of 31 would go');
});

it(
    'offers weights estimated from a list, shows them beside the published ones, and changes nothing until told',
    function (): void {
        manyStudents($this->world, 80);
        $csv = "Student number,Name,Grade\n";
        for ($i = 0; $i < 80; $i++) {
            $csv .= sprintf(
                "03%04d,Pupil%s Family%s,3\n",
                $i,
                chr(97 + ($i % 26)) . chr(97 + intdiv($i, 26)),
                chr(97 + ($i % 23)),
            );
        }
        $id = ($this->csv)($csv)['id'];
        $table = $this->as
            ->getJson("/api/imports/$id/weights")
            ->assertOk()
            ->json();
        expect($table['own'])
            ->toBeFalse()
            ->and($table['pairs'])
            ->toBeGreaterThan(70)
            ->and(DB::table('match_weights')->count())
            ->toBe(0);
        $name = collect($table['lines'])->first(
            fn(array $l): bool => $l['field'] === 'given name' && $l['level'] === 'alike',
        );
        expect($name['inForce'])->toBe($name['published'])->and($name['estimated'])->toBeGreaterThan(0.93);
        $this->as
            ->postJson("/api/imports/$id/weights")
            ->assertOk()
            ->assertJsonPath('own', true);
        expect(
            collect($this->as->getJson("/api/imports/$id/weights")->json('lines'))->first(
                fn(array $l): bool => $l['field'] === 'given name' && $l['level'] === 'alike',
            )['inForce'],
        )->toEqualWithDelta($name['estimated'], 0.001);
        $this->as->deleteJson("/api/schools/{$this->world->school}/weights")->assertNoContent();
        expect(DB::table('match_weights')->count())->toBe(0);
        $few = ($this->csv)("Name,Grade\nNoor Haddad,3\n")['id'];
        $this->as->postJson("/api/imports/$few/weights")->assertStatus(422);
    },
);

it(
    'knows its own again: the same file brought in anew changes nothing and asks nothing, also from the command line',
    function (): void {
        // Names and nothing else, two of them alike: no matcher could settle these.
        $csv = "Name,Grade,Guardian\nNoor Haddad,3,Ann Haddad\nKai Wu,3,\nNora Haddad,3,\nKay Wu,3,\n";
        $id = ($this->csv)($csv)['id'];
        ($this->apply)($id)->assertOk();
        $again = ($this->show)(($this->csv)($csv)['id']);
        expect($again)->changes->toBe(0)->and($again['questions'])->toBe([])->and($again['verdicts']['same'])->toBe(4);
        $file = scratch() . '/list.csv';
        file_put_contents($file, "Name,Grade\nMei Chen,3\nMay Chen,3\n");
        expect(Artisan::call('vantrel:apply', ['file' => [$file], '--school' => 'primary']))->toBe(0);
        expect(Artisan::call('vantrel:plan', ['file' => [$file], '--school' => 'primary', '--json' => true]))->toBe(0);
        $plan = json_decode(Artisan::output(), true);
        expect($plan['questions'])
            ->toBe([])
            ->and(array_column($plan['rows'], 'verdict'))
            ->toBe(['same', 'same']);
    },
);

it('follows a student it made into the account they were merged into', function (): void {
    $csv = "Name,Grade\nNoor Haddad,3\n";
    ($this->apply)(($this->csv)($csv)['id'])->assertOk();
    $made = DB::table('people')->where('given_name', 'Noor')->value('id');
    $survivor = $this->world->student('Noor Haddad', $this->world->section, ['number' => '020700', 'grade' => '03']);
    DB::table('people')
        ->where('id', $made)
        ->update(['state' => 'merged', 'merged_into' => $survivor]);
    $id = ($this->csv)($csv)['id'];
    expect(($this->rows)($id)[0])->verdict->toBe('same')->matchId->toBe($survivor);
});

it('does not bring back a guardian’s connection that was ended', function (): void {
    DB::table('guardianships')->update(['state' => 'ended']);
    $id = ($this->csv)(
        "Student number,Name,Guardian,Guardian e-mail\n" .
            "020001,Wilhelmina Seabright,Hélène Marchetti,helene@shoremail.example\n",
    )['id'];
    expect(($this->show)($id))
        ->changes->toBe(0)
        ->and(implode(' ', ($this->show)($id)['warnings']))
        ->toContain('was ended here, and stays so');
});
