<?php

declare(strict_types=1);

use Tests\Support\AskedAbout;
use Tests\Support\PlanText;
use Vantrel\Core\Accounts\Credentials;
use Vantrel\Core\Accounts\Identities;
use Vantrel\Core\Accounts\OffBoarding;
use Vantrel\Core\Accounts\TransferRequests;
use Vantrel\Core\Accounts\TransferWish;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\TransferKind;
use Vantrel\Core\Records\TransferRequest;

/** Every word and value of the plans that end, hand over and ask for accounts: they stand in plans/. */
$ids = new Ids('01K3CNQ0000000000000000000');
$at = new Occasion($ids, '2026-11-26', ACCOUNTS_NOW);

/** @param  array<string, string|int|null>  $more */
function kai(array $more = []): Person
{
    return new Person('kai', 2, [
        'school_id' => 'here',
        'kind' => 'student',
        'state' => 'active',
        'given_name' => 'Kai',
        'family_name' => 'Wu',
        'number' => '020500',
        'grade' => '05',
        ...$more,
    ]);
}

it('sees somebody off, word by word', function () use ($at): void {
    PlanText::mustBe(OffBoarding::plan(staffRow(), recordsOf(), null, true, $at), __DIR__, 'off-boarding');
    $to = new Person('marten', 1, [
        'school_id' => 'here',
        'kind' => 'staff',
        'state' => 'active',
        'given_name' => 'Marten',
        'family_name' => 'Vale',
    ]);
    PlanText::mustBe(
        OffBoarding::plan(
            staffRow(),
            recordsOf([
                'elsewhere' => ['6 Wren at Copperbrook Middle', '7 Teal at Copperbrook Middle'],
                'signIns' => [signInRow(), signInRow(null, null), signInRow(null, 'maple otter candy')],
                'badges' => [badgeRow(), badgeRow('lost')],
                'identities' => [identityRow('ended'), identityRow()],
            ]),
            $to,
            false,
            $at,
        ),
        __DIR__,
        'off-boarding-handed-over',
    );
    PlanText::mustBe(
        OffBoarding::plan(
            staffRow(),
            recordsOf([
                'signIns' => [],
                'badges' => [],
                'identities' => [],
                'coordinators' => [],
                'invitations' => [],
                'teaching' => [],
            ]),
            null,
            false,
            $at,
        ),
        __DIR__,
        'off-boarding-of-nothing',
    );
});

it('ends ways to sign in, word by word', function () use ($ids): void {
    PlanText::mustBe(
        Credentials::endAll(
            staffRow(),
            [signInRow(), signInRow(null, null)],
            [badgeRow(), badgeRow('lost')],
            [identityRow()],
            ACCOUNTS_NOW,
        ),
        __DIR__,
        'all-ended',
    );
    PlanText::mustBe(Credentials::endAll(staffRow(), [], [], [], ACCOUNTS_NOW), __DIR__, 'nothing-to-end');
    PlanText::mustBe(Credentials::endSecret(signInRow()), __DIR__, 'secret-ended');
    PlanText::mustBe(Credentials::endBadge(badgeRow(), 'Petra Okonjo', ACCOUNTS_NOW), __DIR__, 'card-ended');
    PlanText::mustBe(
        Identities::link('petra', 'Petra Okonjo', 'https://id.example', 'x', $ids, ACCOUNTS_NOW)->plan,
        __DIR__,
        'sign-on-linked',
    );
});

it('asks for a student of another school, and answers, word by word', function () use ($ids, $at): void {
    $plan = new PlanBuilder();
    TransferRequests::ask(
        $plan,
        $ids->for('transfer_request', 'kai', 'there'),
        new TransferWish(
            kai(),
            'there',
            TransferKind::Transfer,
            [
                'given_name' => 'Kai',
                'family_name' => 'Wu',
                'birth_date' => '2014-01-01',
                'number' => '070500',
                'grade' => '06',
                'sections' => ['six'],
                'section_names' => ['6 Tern é'],
            ],
            'ines',
        ),
        ACCOUNTS_NOW,
        'row 7',
        7,
    );
    PlanText::mustBe($plan->build('Asked', 'Asked.'), __DIR__, 'transfer-asked');
    $section = fn(string $id, string $school, string $name, string $state = 'open'): Section => new Section($id, 1, [
        'school_id' => $school,
        'name' => $name,
        'state' => $state,
    ]);
    $sections = [
        'five' => $section('five', 'here', '5 Plover'),
        'six' => $section('six', 'there', '6 Tern'),
        'closed' => $section('closed', 'there', '6 Teal', 'archived'),
        'art' => $section('art', 'there', 'Art 6'),
        'far' => $section('far', 'third', 'Choir'),
    ];
    $in = fn(string $id, string $begins = '2026-08-24'): Enrollment => new Enrollment("e-$id", 1, [
        'section_id' => $id,
        'person_id' => 'kai',
        'begins_on' => $begins,
        'ends_on' => null,
    ]);
    $said = fn(string $kind, array $more): TransferRequest => requestRow($kind)->with([
        'said' => json_encode([...(array) json_decode(requestRow()->said(), true), ...$more], JSON_THROW_ON_ERROR),
    ]);
    foreach (['transfer', 'also'] as $kind) {
        PlanText::mustBe(
            TransferRequests::accept(
                // Sections that are gone, closed, of another school or that they are in stand before one that is right.
                $said($kind, ['sections' => ['gone', 'closed', 'far', 'art', 'six']]),
                AskedAbout::of(kai(), $sections, [$in('five'), $in('art'), $in('nowhere'), $in('five', '2027-01-10')]),
                'ines',
                $at,
            ),
            __DIR__,
            "accepted-$kind",
        );
    }
    PlanText::mustBe(
        TransferRequests::accept(
            $said('transfer', ['number' => '', 'grade' => '', 'sections' => []]),
            AskedAbout::of(kai(['state' => 'left']), $sections, []),
            'ines',
            $at,
        ),
        __DIR__,
        'accepted-with-nothing-said',
    );
    PlanText::mustBe(TransferRequests::refuse(requestRow(), 'Kai Wu', 'ines', ACCOUNTS_NOW), __DIR__, 'turned-down');
    PlanText::mustBe(TransferRequests::withdraw(requestRow(), 'ines', ACCOUNTS_NOW), __DIR__, 'taken-back');
});
