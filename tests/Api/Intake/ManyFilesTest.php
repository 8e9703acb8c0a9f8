<?php

declare(strict_types=1);

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;

beforeEach(fn() => readyForLists($this));

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
    // Cells that reach over columns and down over rows, as in a heading of two rows.
    $wide = ($this->bring)([
        'text' => "Name\tGrade",
        'html' =>
            '<table><tr><th colspan="2">Name</th><th rowspan="2">Grade</th></tr><tr><th>First</th><th>Last</th></tr>' .
            '<tr><td>Noor</td><td>Haddad</td><td rowspan="2">3</td></tr><tr><td>Kai</td><td>Wu</td></tr></table>',
    ])['id'];
    expect(array_map(fn(array $row): string => $row['cells']['Name']['after'], ($this->rows)($wide)))->toBe([
        'Noor Haddad',
        'Kai Wu',
    ]);
    $lines = ($this->bring)(['text' => "Noor Haddad\nKai Wu\nMei Chen\n"])['id'];
    expect(($this->show)($lines))
        ->total->toBe(3)
        ->and(($this->show)($lines)['sheets'][0]['headerRow'])
        ->toBeNull();
    $this->as
        ->post("/api/schools/{$this->world->school}/intakes", [], ['Accept' => 'application/json'])
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
    $this->as->postJson("/api/intakes/$id/domain", ['domain' => 'evil.example'])->assertStatus(422);
    $this->as->postJson("/api/intakes/$id/domain", ['domain' => 'copperbrook.example'])->assertStatus(422);
    // Who adds a mail domain answers for every school.
    $this->world->coordinates($this->world->people['coordinator'], $this->world->otherSchool);
    $this->as->postJson("/api/intakes/$id/domain", ['domain' => 'copperbrook.example'])->assertOk();
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
