<?php

declare(strict_types=1);

use App\Intake\ListFiles;
use Illuminate\Support\Facades\DB;

// Of somebody who went through everything: found by who asks by right, and then nowhere.

beforeEach(fn() => readyToErase($this));

it('leaves nothing at any school they were at, by any name they went by', function (): void {
    $world = $this->world;
    // They moved: what is about to be found stands at the school they came from, and they belong to the other one.
    ($this->change)($this->id, ['school_id' => $world->otherSchool, 'phone' => '+12025550178']);
    $list = $world->insert(
        'imports',
        [
            'school_id' => $world->school,
            'title' => 'Quackenbush, Zebulon.csv',
            'files' => json_encode([
                ['file' => ($file = ListFiles::write("Zebulon Quackenbush\n")), 'title' => 'Zebulon Quackenbush.csv'],
            ]),
            'state' => 'applied',
            'answers' => '{}',
            'summary' => json_encode(['warnings' => ['Zebbie Quackenbush is here twice.']]),
            'made_at' => now(),
            'changed_at' => now(),
        ],
        false,
    );
    DB::table('import_rows')->insert([
        'import_id' => $list,
        'number' => 2,
        'verdict' => 'cannot',
        'content' => json_encode(['cells' => ['Quackenbush, Zebulon']]),
    ]);
    $request = $world->insert('join_requests', [
        'section_id' => $world->section,
        'state' => 'refused',
        'cause' => 'newcomer',
        'given_name' => 'Zebulon',
        'family_name' => 'Quackenbush',
        'birth_date' => '2015-08-03',
        'password' => 'a-hash-of-zebulons',
        'made_at' => now(),
    ]);
    foreach (
        [
            ['Zebbie is missing a form', 'Zebbie has not brought the form.', 'helene@shoremail.example'],
            ['About Zebbie Quackenbush', 'x', 'petra@lanternfield.example'],
        ]
        as [$subject, $text, $to]
    ) {
        $id = $world->insert(
            'outgoing_messages',
            [
                'school_id' => $world->school,
                'to_address' => $to,
                'subject' => $subject,
                'text' => $text,
                'made_at' => now(),
            ],
            false,
        );
        DB::table('message_children')->insert(['message_id' => $id, 'student_id' => $this->id]);
    }
    foreach ([$world->school, $world->otherSchool] as $school) {
        $world->insert('notices', [
            'school_id' => $school,
            'kind' => 'notice',
            'readers' => 'all',
            'title' => 'ZEBBIE QUACKENBUSH sings',
            'body' => '',
            'made_at' => now(),
        ]);
    }
    $mine = ['school_id' => $world->school, 'person_id' => $world->people['coordinator'], 'made_at' => now()];
    $world->insert(
        'roll_views',
        [...$mine, 'name' => 'Zeb', 'query' => 'q=Zebulon+Quackenbush&x=zebulon quackenbush'],
        false,
    );
    $world->insert(
        'print_runs',
        [
            ...$mine,
            'what' => 'Card of Zebbie Quackenbush',
            'total' => 1,
            'expires_at' => now(),
            'sealed' => 'sealed zebulon',
        ],
        false,
    );
    DB::table('desk_put_off')->insert([
        'school_id' => $world->school,
        'loop' => 'unplaced',
        'until' => '2026-12-24',
        'reason' => 'Zebulon Quackenbush comes back',
        'by_id' => $world->people['coordinator'],
    ]);
    DB::table('column_mappings')->insert([
        'school_id' => $world->school,
        'shape' => str_repeat('b', 64),
        'said' => json_encode(['sample' => 'Zebulon Quackenbush']),
        'used_at' => now(),
    ]);
    ($this->change)($world->people['student'], ['grade' => '04']);
    DB::table('ledger_entries')
        ->orderByDesc('seq')
        ->limit(1)
        ->update(['title' => 'Letter to Zebbie Quackenbush', 'sentence' => 'Writes about 998877.']);
    ($this->leave)();
    $this->getJson("$this->uri/held")->assertStatus(403);
    $world->coordinates($world->people['coordinator'], $world->otherSchool);
    // The other lawful request is answered from the same places.
    $held = $this->getJson("$this->uri/held?format=json")
        ->assertOk()
        ->json('held');
    expect($held['The account'][0])
        ->toMatchArray(['given name' => 'Zeb', 'number' => '998877', 'birth date' => '2015-08-03'])
        ->and(array_keys($held))
        ->toContain('Guardian', 'Enrollment', 'Card', 'Named in imports', 'Named in notices', 'Named in roll views')
        ->and(json_encode($held))
        ->not->toContain('a-hash-of-zebulons')
        ->not->toContain('sealed zebulon');
    expect(
        $this->get("$this->uri/held")
            ->assertOk()
            ->getContent(),
    )->toStartWith('%PDF-');
    ($this->erase)()->assertOk();
    $found = [];
    foreach (DB::select('show tables') as $row) {
        $table = (string) array_values((array) $row)[0];
        foreach (DB::table($table)->get() as $record) {
            $text = (string) json_encode($record, JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE);
            if (preg_match('/zebul|zebbie|998877|quackmail|12025550178|2015-08-03/i', $text) === 1) {
                $found[] = "$table: $text";
            }
        }
    }
    expect($found)
        ->toBe([])
        ->and(is_file(ListFiles::path($file)))
        ->toBeFalse()
        ->and(DB::table('join_requests')->where('id', $request)->exists())
        ->toBeFalse()
        ->and(DB::table('notices')->pluck('title')->all())
        ->toBe(['somebody erased sings', 'somebody erased sings']);
    foreach (glob(storage_path('logs') . '/*') ?: [] as $log) {
        expect(preg_match('/zebul|zebbie|quackmail/i', (string) file_get_contents($log)))->toBe(0);
    }
});
