<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

/** What every test of them begins with. */
function readyAtTheDoor(object $test): void
{
    $test->world = World::make();
    $test->section = $test->world->section;
    $test->code = $test->world->code;
    $test->as = fn(string $role) => $test->actingAs($test->world->as($role));
    $test->out = function () use ($test): void {
        auth()->logout();
        $test->flushSession();
        app('auth')->forgetGuards();
    };
    $test->terms = fn(array $terms) => DB::table('join_codes')->where('code', $test->code)->update($terms);
    $test->rules = fn(array $rules) => DB::table('schools')->where('id', $test->world->school)->update($rules);
    $test->newcomer = [
        'code' => $test->code,
        'given_name' => 'Marlo',
        'family_name' => 'Quillfeather',
        'birth_date' => '2012-05-04',
        'password' => 'green boat stone',
    ];
}
