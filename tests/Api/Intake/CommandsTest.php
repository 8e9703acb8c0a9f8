<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(fn() => readyForLists($this));

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
            ->getJson("/api/intakes/$id/weights")
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
            ->postJson("/api/intakes/$id/weights")
            ->assertOk()
            ->assertJsonPath('own', true);
        expect(
            collect($this->as->getJson("/api/intakes/$id/weights")->json('lines'))->first(
                fn(array $l): bool => $l['field'] === 'given name' && $l['level'] === 'alike',
            )['inForce'],
        )->toEqualWithDelta($name['estimated'], 0.001);
        $this->as->deleteJson("/api/schools/{$this->world->school}/weights")->assertNoContent();
        expect(DB::table('match_weights')->count())->toBe(0);
        $few = ($this->csv)("Name,Grade\nNoor Haddad,3\n")['id'];
        $this->as->postJson("/api/intakes/$few/weights")->assertStatus(422);
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
