<?php

declare(strict_types=1);

namespace Tests\Support;

use App\Ledger\Ledger;
use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Entity;

/** Something of each kind that an address of the API may name, made in a world. */
final class RouteParameters
{
    /** @return array<string, string> by the name of the parameter */
    public static function of(World $world): array
    {
        $twin = $world->student('Wilhelmina Seabright', $world->section);
        $section = new PlanBuilder();
        $section->insert(
            Entity::KnownApart,
            (string) Str::ulid(),
            ['left_id' => min($world->people['student'], $twin), 'right_id' => max($world->people['student'], $twin)],
            'test',
        );
        $entry = app(Ledger::class)->apply($section->build('Test', 'Test.'), $world->school, null, Action::Place);
        return [
            'school' => $world->school,
            'realm' => $world->school,
            'section' => $world->section,
            'person' => $world->people['student'],
            'view' => $world->insert(
                'roll_views',
                ['school_id' => $world->school, 'name' => 'Mine', 'query' => 'grade=03', 'made_at' => now()],
                false,
            ),
            'accounts' => "{$world->people['student']}-$twin",
            'entry' => $entry->id,
            'intake' => $world->intake(),
            'invitation' => $world->insert('invitations', [
                'section_id' => $world->section,
                'email' => 'ruben.aske@lanternfield.example',
                'role' => 'assistant',
                'state' => 'invited',
                'token_hash' => Token::hashOf('t'),
                'sent_at' => now(),
                'expires_at' => now()->addDay(),
                'invited_by' => $world->people['lead'],
            ]),
            'transfer' => $world->insert('transfer_requests', [
                'person_id' => $world->people['student'],
                'from_school_id' => $world->school,
                'to_school_id' => $world->otherSchool,
                'kind' => 'transfer',
                'state' => 'waiting',
                'said' => '{}',
                'made_at' => now(),
            ]),
            'year' => $world->year,
            'claim' => (string) Str::ulid(),
            'sought' => (string) Str::ulid(),
            'notice' => $world->insert('notices', [
                'school_id' => $world->school,
                'section_id' => $world->section,
                'kind' => 'work',
                'readers' => 'all',
                'title' => 'Reading log',
                'on_day' => '2026-11-30',
                'state' => 'live',
                'made_at' => now(),
            ]),
            'invited' => $world->insert('student_invitations', [
                'section_id' => $world->section,
                'email' => 'noor@shoremail.example',
                'typed' => 'noor@shoremail.example',
                'reader' => 'student',
                'language' => 'en',
                'token_hash' => Token::hashOf('i'),
                'state' => 'invited',
                'sent_at' => now(),
                'expires_at' => now()->addDay(),
            ]),
            'template' => (string) Str::ulid(),
            'mailing' => (string) Str::ulid(),
            'key' => (string) Str::ulid(),
            'tie' => (string) DB::table('guardianships')->value('id'),
            'passkey' => (string) Str::ulid(),
            'held' => (string) Str::ulid(),
            'session' => str_repeat('0', 32),
            'asking' => $world->asking(),
            'print' => $world->print('coordinator'),
            'message' => OutgoingMessage::query()->create([
                'id' => (string) Str::ulid(),
                'school_id' => $world->school,
                'to_address' => 'x@x.example',
                'subject' => 's',
                'text' => 't',
                'made_at' => now(),
            ])->id,
        ];
    }
}
