<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;

/**
 * Played through the HTTP API, as a hostile student, a classmate, another school's coordinator and an anonymous visitor
 * would.
 */

beforeEach(fn() => readyForAttacks($this));

// 2. A list writes across schools.

it('answers a list of names with nothing of another school’s child', function (): void {
    $secret = ['2018-02-11', '020001', 'helene@shoremail.example', $this->world->people['student']];
    foreach (
        [
            "Name,Grade\nWilhelmina Seabright,6\n",
            "Name\nWilhelmina Seabright\n",
            "Name,Guardian email\nWilhelmina Seabright,helene@shoremail.example\n",
        ]
        as $list
    ) {
        $id = ($this->csv)('other coordinator', $list, $this->world->otherSchool)['id'];
        $answers = json_encode([($this->show)($id), $this->getJson("/api/intakes/$id/rows")->json()]);
        foreach (array_diff($secret, str_contains($list, 'helene') ? ['helene@shoremail.example'] : []) as $private) {
            expect($answers)->not->toContain($private);
        }
        expect(($this->show)($id)['questions'])
            ->toBe([])
            ->and(($this->show)($id)['verdicts']['new'])
            ->toBe(1);
    }
});

it('writes nothing of another school by an account key, a guardian’s address or an answer made up', function (): void {
    $student = $this->world->people['student'];
    $mine = fn(): array => [
        DB::table('people')->where('school_id', $this->world->school)->orderBy('id')->get()->toArray(),
        DB::table('guardianships')->where('student_id', $student)->get()->toArray(),
        DB::table('enrollments')->where('person_id', $student)->get()->toArray(),
    ];
    $before = $mine();
    $id = ($this->csv)(
        'other coordinator',
        "Account key,Name,Guardian,Guardian email\n$student,Wilhelmina Seabright,Hélène Marchetti,eve@evil.example\n",
        $this->world->otherSchool,
    )['id'];
    ($this->apply)($id);
    $id = ($this->csv)(
        'other coordinator',
        "Name,Birth date,Student number,Grade\nWilhelmina Seabright,2018-02-11,020001,6\n",
        $this->world->otherSchool,
    )['id'];
    $question = ($this->show)($id)['questions'][0];
    expect($question['text'])
        ->toBe('Is row 2 a student of Lanternfield Primary?')
        ->and($question['evidence'])
        ->toBe([])
        ->and($question['probability'])
        ->toBeNull()
        ->and(json_encode($question))
        ->not->toContain('3 Heron');
    foreach (["is:$student:transfer", "is:$student:also", "is:$student:leave", "is:$student"] as $forged) {
        $this->postJson("/api/intakes/$id/answers", ['answers' => [$question['id'] => $forged]]);
        ($this->apply)($id);
        expect($mine())->toEqual($before);
    }
    expect(DB::table('outgoing_messages')->count())
        ->toBe(0)
        ->and(DB::table('ledger_schools')->where('school_id', $this->world->school)->count())
        ->toBe(0);
});

it('shows a coordinator no child of another school through the guardian both share', function (): void {
    $guardian = $this->world->people['guardian'];
    $brother = $this->world->person($this->world->otherSchool, 'student', 'Corin Marchetti');
    $this->world->insert('guardianships', [
        'student_id' => $brother,
        'guardian_id' => $guardian,
        'state' => 'connected',
    ]);
    $sheet = fn(string $role) => ($this->as)($role)
        ->getJson("/api/people/$guardian")
        ->assertOk()
        ->json('relatives');
    expect(array_column($sheet('coordinator'), 'name'))
        ->toContain('Wilhelmina Seabright')
        ->not->toContain('Corin Marchetti')
        ->toContain('A student of Copperbrook Middle')
        ->and(array_column($sheet('coordinator'), 'id'))
        ->not->toContain($brother);
});

it('does not bring back another school’s departed staff by a list', function (): void {
    $gone = $this->world->staff($this->world->school, 'Vera Loomis');
    DB::table('people')
        ->where('id', $gone)
        ->update(['state' => 'left']);
    $id = ($this->csv)(
        'other coordinator',
        "Name,Email,Role\nVera Loomis,vera.loomis@lanternfield.example,teacher\n",
        $this->world->otherSchool,
    )['id'];
    ($this->apply)($id);
    expect(DB::table('people')->where('id', $gone)->value('state'))
        ->toBe('left')
        ->and(DB::table('people')->where('email', 'vera.loomis@lanternfield.example')->count())
        ->toBe(1);
    ($this->browser)()->signIn('vera.loomis@lanternfield.example', $this->password)->assertStatus(422);
});
