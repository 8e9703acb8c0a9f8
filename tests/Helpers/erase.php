<?php

declare(strict_types=1);

const OWN_PASSWORD = 'lantern harbor morning';

/** A student with a card and a guardian, who has been changed once; with what asks for their erasure. */
function readyToErase(object $test): void
{
    readyToUndo($test);
    $world = $test->world;
    $world->signIn($world->people['coordinator'], 'ines@lanternfield.example', null, OWN_PASSWORD);
    $test->id = $world->student('Zebulon Quackenbush', $world->section, [
        'number' => '998877',
        'email' => 'zebulon@quackmail.example',
        'birth_date' => '2015-08-03',
        'preferred_name' => 'Zebbie',
    ]);
    $world->badge($test->id, 'zebulons-card');
    $guardian = $world->person($world->school, 'guardian', 'Ottoline Quackenbush', ['phone' => '+12025550101']);
    $test->tie = $world->insert('guardianships', [
        'student_id' => $test->id,
        'guardian_id' => $guardian,
        'state' => 'listed',
        'relationship' => 'mother',
    ]);
    $world->lookThrough();
    ($test->change)($test->id, ['given_name' => 'Zeb']);
    $test->uri = "/api/people/$test->id";
    $test->leave = fn() => ($test->change)($test->id, ['state' => 'left']);
    $test->erase = function (string $password = OWN_PASSWORD) use ($test) {
        $plan = $test->postJson("$test->uri/erase/plan")->assertOk();

        return $test->postJson("$test->uri/erase", [
            'fingerprint' => $plan->json('fingerprint'),
            'seed' => $plan->json('seed'),
            'password' => $password,
        ]);
    };
}
