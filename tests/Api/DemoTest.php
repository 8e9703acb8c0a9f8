<?php

declare(strict_types=1);

use App\LookAlikes\Pairs;
use App\Models\School;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;

it('makes the demo district with its planted cases, the same every time', function (): void {
    Artisan::call('vantrel:seed');
    $kinds = DB::table('people')->groupBy('kind')->selectRaw('kind, count(*) n')->pluck('n', 'kind')->all();
    expect($kinds['student'])->toBeGreaterThan(1240)->toBeLessThan(1300)->and($kinds['guardian'])->toBeGreaterThan(1800)->toBeLessThan(2000)->and($kinds['staff'])->toBe(86)
        ->and(DB::table('sections')->count())->toBeGreaterThanOrEqual(138)->toBeLessThanOrEqual(142);
    // Every account planted as a second one of a child is found, with the child it doubles; twins and namesakes are not.
    $pairs = [];
    foreach (School::query()->get() as $school) {
        foreach (app(Pairs::class)->of($school) as $pair) {
            $pairs[] = [$pair->leftId, $pair->rightId];
        }
    }
    $withoutNumber = DB::table('people as p')->where('p.kind', 'student')->whereNull('p.number')->pluck('id')->flip()->all();
    $doubled = array_filter($pairs, fn (array $p): bool => isset($withoutNumber[$p[0]]) || isset($withoutNumber[$p[1]]));
    expect($withoutNumber)->toHaveCount(23)->and(count($doubled))->toBeGreaterThanOrEqual(23);
    $found = array_flip(array_merge(...$doubled));
    foreach (array_keys($withoutNumber) as $id) {
        expect($found)->toHaveKey($id);
    }
    expect(DB::table('invitations')->count())->toBe(11)->and(DB::table('join_requests')->count())->toBe(5)->and(DB::table('imports')->where('state', 'planned')->count())->toBe(1);
    $first = DB::table('people')->orderBy('id')->get()->toJson();
    DB::statement('SET FOREIGN_KEY_CHECKS=0');
    foreach (['import_rows', 'imports', 'outgoing_messages', 'guardianships', 'join_requests', 'invitations', 'join_codes', 'enrollments', 'sections', 'badges', 'sign_ins', 'coordinators', 'people', 'school_years', 'schools'] as $table) {
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
    expect(DB::table('schools')->count())->toBe(1)->and(DB::table('people')->count())->toBe(1);
    $this->postJson('/api/sign-in', ['user_name' => 'ines.halloran@lanternfield.example', 'secret' => 'lantern harbor morning'])->assertOk()->assertJsonPath('me.schools.0.coordinates', true);
    Artisan::call('vantrel:sign-ins');
    expect(Artisan::output())->toContain('ines.halloran')->not->toContain('wilhelmina');
});
