<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;

// What a school says of an address, a tie or an account counts in that school: played through HTTP, as the coordinator
// of another school would.

beforeEach(function (): void {
    readyForAttacks($this);
    $this->eve = $this->world->people['other coordinator'];
    $this->edit = fn(string $role, string $person, array $fields) => ($this->as)($role)->postJson(
        "/api/people/$person",
        ['version' => (int) DB::table('people')->where('id', $person)->value('version'), ...$fields],
    );
    $this->address = fn(string $person): array => array_values(
        (array) DB::table('people')
            ->where('id', $person)
            ->first(['email', 'email_state', 'email_by']),
    );
    $this->invite = function (string $email): string {
        ($this->as)('lead')
            ->postJson("/api/sections/$this->section/invitations", ['email' => $email, 'role' => 'co_teacher'])
            ->assertOk();

        return (string) DB::table('invitations')->where('email', $email)->value('id');
    };
});

it('lets nobody into a section by an address that another school vouches for', function (): void {
    $invitation = ($this->invite)('new.colleague@lanternfield.example');
    // Of one's own address nobody is the judge,
    ($this->edit)('other coordinator', $this->eve, ['email' => 'new.colleague@lanternfield.example'])->assertOk();
    expect(($this->address)($this->eve))->toBe(['new.colleague@lanternfield.example', 'claimed', 'hand']);
    // and what a school says of an accomplice's counts at that school.
    $helper = $this->world->staff($this->world->otherSchool, 'Rufus Crane');
    DB::table('people')
        ->where('id', $this->eve)
        ->update(['email' => 'eve@lanternfield.example']);
    ($this->edit)('other coordinator', $helper, ['email' => 'new.colleague@lanternfield.example'])->assertOk();
    expect(($this->address)($helper))->toBe(['new.colleague@lanternfield.example', 'confirmed', 'school']);
    $browser = ($this->browser)();
    $browser->signIn('rufus.crane@lanternfield.example', $this->password)->assertOk();
    expect($browser->get('/api/invitations')->json('invitations'))->toBe([]);
    $browser->post("/api/invitations/$invitation/answer", ['answer' => 'accept'])->assertForbidden();
    expect(DB::table('enrollments')->where('person_id', $helper)->exists())->toBeFalse();
    // Once its owner has followed a link it is theirs everywhere.
    DB::table('people')
        ->where('id', $helper)
        ->update(['email_by' => 'mail']);
    $browser->post("/api/invitations/$invitation/answer", ['answer' => 'accept'])->assertOk();
});

it('connects no staff with a child of another school by an address that theirs vouches for', function (): void {
    $noor = $this->world->student('Noor Haddad', $this->section, ['birth_date' => '2017-05-04']);
    $layla = $this->world->person($this->world->school, 'guardian', 'Layla Haddad', [
        'email' => 'layla.haddad@lanternfield.example',
    ]);
    $this->world->insert('guardianships', ['student_id' => $noor, 'guardian_id' => $layla, 'state' => 'listed']);
    $helper = $this->world->staff($this->world->otherSchool, 'Layla Haddad');
    expect(($this->address)($helper))->toBe(['layla.haddad@lanternfield.example', 'confirmed', 'school']);
    $browser = ($this->browser)();
    $browser->signIn('layla.haddad@lanternfield.example', $this->password)->assertOk();
    $seek = fn() => $browser->post('/api/family/seek-own', [
        'school' => $this->world->school,
        'child_given_name' => 'Noor',
        'child_family_name' => 'Haddad',
        'birth_date' => '2017-05-04',
    ]);
    $seek()->assertSuccessful();
    expect(DB::table('guardianships')->where('student_id', $noor)->where('guardian_id', $helper)->exists())
        ->toBeFalse()
        ->and(DB::table('guardianships')->where('student_id', $noor)->value('state'))
        ->toBe('listed');
    DB::table('people')
        ->where('id', $helper)
        ->update(['email_by' => 'mail']);
    DB::table('family_askings')->delete();
    $seek()->assertSuccessful();
    expect(DB::table('guardianships')->where('student_id', $noor)->where('state', 'connected')->exists())->toBeTrue();
});

it('confirms no address that another account has, by hand or by a list', function (): void {
    $student = $this->world->person($this->world->otherSchool, 'student', 'Otis Vane');
    ($this->edit)('other coordinator', $student, ['email' => $this->lead])->assertOk();
    expect(($this->address)($student))->toBe([$this->lead, 'claimed', 'hand']);
    $id = ($this->csv)(
        'other coordinator',
        "Name,Student number,Grade,Email\nNora Finch,070001,6,$this->lead\n" .
            "Abel Finch,070002,6,a.finch@lanternfield.example\n",
        $this->world->otherSchool,
    )['id'];
    expect(implode(' ', ($this->show)($id)['warnings']))->toContain("$this->lead is another account’s already");
    ($this->apply)($id)->assertOk();
    expect(
        DB::table('people')
            ->whereIn('number', ['070001', '070002'])
            ->orderBy('number')
            ->pluck('email_state')
            ->all(),
    )->toBe(['claimed', 'confirmed']);
});

it('takes a mail domain only from whoever answers for all schools, and none where anybody has a mailbox', function (
    array $domains,
    string $who,
    bool $taken,
): void {
    $this->world->coordinates($this->world->staff($this->world->school, 'Dara Quist'), $this->world->otherSchool);
    $this->world->people['district'] = (string) DB::table('people')->where('given_name', 'Dara')->value('id');
    $this->world->coordinates($this->world->people['district'], $this->world->school);
    $answer = ($this->as)($who)->postJson("/api/schools/{$this->world->otherSchool}/settings", [
        'mail_domains' => $domains,
    ]);
    $taken ? $answer->assertOk() : $answer->assertStatus(422)->assertJsonPath('errors.mail_domains.0', fn($s) => true);
})->with(function (): iterable {
    yield 'one that the school has' => [['lanternfield.example'], 'other coordinator', true];
    yield 'another’s mail' => [['shoremail.example'], 'other coordinator', false];
    yield 'the same, by who answers for all' => [['shoremail.example'], 'district', true];
    yield 'mailboxes for anybody' => [['lanternfield.example', 'openmail.example'], 'district', false];
});

it('gives whoever reaches further than one school to no coordinator of one', function (): void {
    $guardian = $this->world->people['guardian'];
    $brother = $this->world->person($this->world->otherSchool, 'student', 'Corin Marchetti');
    $this->world->insert('guardianships', [
        'student_id' => $brother,
        'guardian_id' => $guardian,
        'state' => 'connected',
    ]);
    ($this->edit)('coordinator', $guardian, ['email' => 'ines.halloran@shoremail.example'])
        ->assertStatus(422)
        ->assertJsonPath('errors.email.0', fn(string $s): bool => str_contains($s, 'more than your schools'));
    $this->postJson("/api/people/$guardian/sign-in-link")->assertStatus(422);
    $this->postJson("/api/people/$guardian/sign-in-slip")->assertStatus(422);
    $this->postJson("/api/people/$guardian/erase/plan")->assertStatus(422);
    // An account of one's own making, merged with theirs, would open it.
    $mine = $this->world->person($this->world->school, 'guardian', 'Hélène Marchetti', [
        'email' => 'helene@shoremail.example',
    ]);
    $this->getJson("/api/schools/{$this->world->school}/look-alikes/$guardian-$mine")->assertStatus(422);
    // What is not the account stays theirs to mend.
    ($this->edit)('coordinator', $guardian, ['phone' => '+12025550147'])->assertOk();
    // With the tie ended, the account is one of the school alone.
    DB::table('guardianships')
        ->where('student_id', $brother)
        ->update(['state' => 'ended']);
    ($this->edit)('coordinator', $guardian, ['email' => 'helene.m@shoremail.example'])->assertOk();
});

it('lets no coordinator of one school shut out who coordinates another', function (): void {
    $ines = $this->world->people['coordinator'];
    $deputy = $this->world->staff($this->world->school, 'Joss Averill');
    $this->world->coordinates($deputy, $this->world->school);
    $this->world->coordinates($ines, $this->world->otherSchool);
    $this->world->people['deputy'] = $deputy;
    ($this->as)('deputy');
    foreach (['credentials/end-all', 'off-board/plan', 'off-board'] as $way) {
        $this->postJson("/api/people/$ines/$way")->assertStatus(422);
    }
    $signIn = DB::table('sign_ins')->where('person_id', $ines)->value('id');
    $this->postJson("/api/people/$ines/credentials/end", ['kind' => 'password', 'id' => $signIn])->assertStatus(422);
    ($this->browser)()->signIn('ines.halloran@lanternfield.example', $this->password)->assertOk();
    // The other way round it is theirs to do.
    ($this->as)('coordinator')
        ->postJson("/api/people/$deputy/credentials/end-all")
        ->assertOk();
});
