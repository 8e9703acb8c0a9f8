<?php

declare(strict_types=1);

use App\LookAlikes\Kept;
use App\Models\Realm;
use App\Models\School;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;

it('makes the demo district with its planted cases, the same every time', function (): void {
    Artisan::call('vantrel:seed');
    $kinds = DB::table('people')->groupBy('kind')->selectRaw('kind, count(*) n')->pluck('n', 'kind')->all();
    expect($kinds['student'])
        ->toBeGreaterThan(1240)
        ->toBeLessThan(1300)
        ->and($kinds['guardian'])
        ->toBeGreaterThan(1800)
        ->toBeLessThan(2000)
        ->and($kinds['staff'])
        ->toBe(86)
        ->and(DB::table('sections')->count())
        ->toBeGreaterThanOrEqual(138)
        ->toBeLessThanOrEqual(142);
    // Every account planted as a second one of a child is found, with the child it doubles; twins and namesakes are
    // not.
    $pairs = [];
    foreach (School::query()->get() as $school) {
        foreach (app(Kept::class)->clusters(Realm::of($school)) as $cluster) {
            foreach ($cluster->pairs as $pair) {
                $pairs[] = [$pair->leftId, $pair->rightId];
            }
        }
    }
    $withoutNumber = DB::table('people as p')
        ->where('p.kind', 'student')
        ->whereNull('p.number')
        ->pluck('id')
        ->flip()
        ->all();
    $doubled = array_filter($pairs, fn(array $p): bool => isset($withoutNumber[$p[0]]) || isset($withoutNumber[$p[1]]));
    expect($withoutNumber)->toHaveCount(23)->and(count($doubled))->toBeGreaterThanOrEqual(23);
    $found = array_flip(array_merge(...$doubled));
    foreach (array_keys($withoutNumber) as $id) {
        expect($found)->toHaveKey($id);
    }
    expect(DB::table('invitations')->count())
        ->toBe(11)
        ->and(DB::table('join_requests')->count())
        ->toBe(5)
        ->and(DB::table('imports')->where('state', 'planned')->count())
        ->toBe(1);
    $first = DB::table('people')->orderBy('id')->get()->toJson();
    DB::statement('SET FOREIGN_KEY_CHECKS=0');
    foreach (
        [
            'import_rows',
            'imports',
            'student_invitations_opened',
            'student_invitations',
            'work_results',
            'notices',
            'outgoing_messages',
            'guardianships',
            'join_requests',
            'invitations',
            'join_codes',
            'enrollments',
            'sections',
            'badges',
            'sign_ins',
            'coordinators',
            'people',
            'school_years',
            'schools',
        ]
        as $table
    ) {
        DB::table($table)->delete();
    }
    DB::statement('SET FOREIGN_KEY_CHECKS=1');
    Artisan::call('vantrel:seed');
    expect(DB::table('people')->orderBy('id')->get()->toJson())->toBe($first);
    Artisan::call('vantrel:seed');
    expect(DB::table('schools')->count())->toBe(3);
});

it('makes one school and one coordinator where nothing else is wanted', function (): void {
    Artisan::call('vantrel:seed', ['which' => 'empty']);
    expect(DB::table('schools')->count())
        ->toBe(1)
        ->and(DB::table('people')->count())
        ->toBe(1);
    // The password is drawn, said once, and changed before anything else; nothing that stands in the README signs in.
    expect(preg_match('/user name (\S+), password ([a-z]+(?: [a-z]+){5})$/m', Artisan::output(), $m))->toBe(1);
    Artisan::call('vantrel:seed', ['which' => 'empty']);
    expect(Artisan::output())->not->toContain('password');
    foreach (['coordinator', 'ines.halloran@lanternfield.example'] as $user) {
        $this->postJson('/api/sign-in', ['user_name' => $user, 'secret' => 'lantern harbor morning'])->assertStatus(
            422,
        );
    }
    $this->postJson('/api/sign-in', ['user_name' => $m[1], 'secret' => $m[2]])
        ->assertOk()
        ->assertJsonPath('me.schools.0.coordinates', true)
        ->assertJsonPath('me.must', 'password');
    $school = DB::table('schools')->value('id');
    $this->getJson("/api/schools/$school/desk")->assertStatus(403);
    $this->postJson('/api/password', ['password' => 'four green boats at sea'])
        ->assertOk()
        ->assertJsonPath('must', '');
    $this->getJson("/api/schools/$school/desk")->assertOk();
    expect(DB::table('sign_ins')->value('temporary'))->toBe(0);
    Artisan::call('vantrel:sign-ins');
    expect(Artisan::output())->toBe('');
});
