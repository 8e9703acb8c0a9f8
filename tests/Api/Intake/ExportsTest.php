<?php

declare(strict_types=1);

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;

beforeEach(fn() => readyForLists($this));

it('gives the rows that need work back as a workbook, and takes them in again mended', function (): void {
    $id = ($this->csv)(
        "Fall list\nStudent no,Name,Grade,Guardian e-mail\n020009,=cmd|calc,3,ann@x.example\n" .
            "1.2E+05,Kai Wu,3,\n,Mei Chen,tall,mei at x\n020010,Bo Ek,3,bo@x.example\n",
    )['id'];
    $file = scratch() . '/mend.xlsx';
    file_put_contents(
        $file,
        $this->as
            ->get("/api/intakes/$id/rows-to-mend")
            ->assertOk()
            ->assertDownload()
            ->streamedContent() ?:
        file_get_contents(
            $this->as
                ->get("/api/intakes/$id/rows-to-mend")
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
        ->toHaveCount(4)
        ->and($values[1][1])
        ->toContain('=cmd|calc')
        ->and($cells[1][1][2])
        ->toBe('s')
        ->and($values[2][0])
        ->toBe('1.2E+05')
        ->and($values[2][4])
        ->toContain('as text')
        ->and($cells[2][0][1])
        ->toBeTrue()
        ->and($cells[2][1][1])
        ->toBeFalse()
        ->and($values[3][4])
        ->toContain('Grade:')
        ->toContain('Guardian e-mail:')
        ->and($cells[3][2][1])
        ->toBeTrue();
    outside([
        '/usr/bin/python3',
        '-c',
        'import openpyxl,sys; w=openpyxl.load_workbook(sys.argv[1]); s=w.active; s["B2"]="Ada Ek"; s["A3"]="020011"; ' .
        's["C4"]="3"; s["D4"]="mei@x.example"; w.save(sys.argv[1])',
        $file,
    ]);
    $again = ($this->bring)(['files' => [new UploadedFile($file, 'mend.xlsx', null, null, true)]])['id'];
    $list = ($this->show)($again);
    expect($list['verdicts']['new'])
        ->toBe(3)
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
    $this->as->postJson("/api/intakes/$id/everyone", ['everyone' => "section:{$this->world->section}"])->assertOk();
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
    $this->as->postJson("/api/intakes/$id/answers", ['answers' => [$question['id'] => 'take']])->assertOk();
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
        ->update(['phone' => '+12025550143', 'family_name' => '-2+3', 'given_name' => 'Ann;=2+3']);
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
        // Also where another sign separates than the one that was written.
        foreach ([',', ';'] as $separator) {
            foreach (file($file, FILE_IGNORE_NEW_LINES) ?: [] as $line) {
                foreach (str_getcsv(rtrim($line, "\r"), $separator, '"', '') as $cell) {
                    expect(preg_match('/^[=+\-@\t\r]/', (string) $cell))->toBe(0);
                }
            }
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
        ->toContain('"oneroster.version","1.2"')
        ->toContain('"file.users","bulk"')
        ->toContain('"file.results","absent"');
    $id = ($this->bring)(['files' => [new UploadedFile($file, 'school.zip', null, null, true)]])['id'];
    expect(($this->show)($id))->changes->toBe(0)->total->toBeGreaterThan(5);
});
