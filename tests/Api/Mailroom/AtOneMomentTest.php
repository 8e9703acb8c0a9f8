<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\RealServer;
use Tests\Support\ServerTestCase;
use Tests\Support\World;

/** What two people, or one who presses twice, do in the Mailroom at the very same moment, through a real server. */
beforeEach(function (): void {
    $this->own = (string) config('database.connections.mariadb.database');
    $database = "{$this->own}_moment_" . bin2hex(random_bytes(3));
    ServerTestCase::useDatabase($database);
    $this->world = World::make();
    $this->section = "/api/sections/{$this->world->section}";
    $this->server = RealServer::start($database);
    $this->client = function (string $user): CurlHandle {
        $client = $this->server->client();
        $this->server->send($client);
        $secrets = ['user_name' => $user, 'secret' => 'lantern harbor morning'];
        expect($this->server->send($this->server->next($client, '/api/sign-in', $secrets)))->toBe(200);

        return $client;
    };
    $this->ask = function (string $uri, array $body): array {
        $this->reader ??= ($this->client)('petra.okonjo@lanternfield.example');
        $said = curl_exec($this->server->next($this->reader, $uri, $body));

        return json_decode((string) $said, true, 512, JSON_THROW_ON_ERROR);
    };
    /** @return list<int> what each of six windows of one person, all pressed at once, was answered */
    $this->all = fn(string $uri, array|Closure $body, string $user = 'petra.okonjo') => RealServer::allAtOnce(
        array_map(
            fn(int $n): CurlHandle => $this->server->next(
                ($this->client)("$user@lanternfield.example"),
                $uri,
                $body instanceof Closure ? $body($n) : $body,
            ),
            range(1, 6),
        ),
    );
    for ($i = 0; $i < 12; $i++) {
        $guardian = $this->world->person($this->world->school, 'guardian', "Ada$i Moss", [
            'email' => "ada$i@shoremail.example",
        ]);
        $this->world->insert('guardianships', [
            'student_id' => $this->world->student("Kit$i Moss", $this->world->section, ['number' => "0300$i"]),
            'guardian_id' => $guardian,
            'state' => 'connected',
        ]);
    }
    $this->twice = fn(string $kind): int => DB::table('outgoing_messages')
        ->where('kind', $kind)
        ->groupBy('to_address')
        ->havingRaw('count(*) > 1')
        ->get('to_address')
        ->count();
});
afterEach(function (): void {
    $database = (string) config('database.connections.mariadb.database');
    $this->server->stop();
    DB::statement("DROP DATABASE `$database`");
    ServerTestCase::useDatabase($this->own);
});

it('sends one letter, one invitation and one copy, whoever presses how often', function (): void {
    $letter = ['readers' => 'guardians', 'subject' => 'Trip', 'body' => 'Dear {{name}}, we go on Friday.'];
    $letter['seen'] = ($this->ask)("$this->section/letter/plan", $letter)['seen'];
    $answers = ($this->all)("$this->section/letter", $letter);
    expect(array_diff($answers, [200, 409, 422, 503]))
        ->toBe([])
        ->and(array_count_values($answers)[200])
        ->toBe(1)
        ->and(DB::table('mailings')->count())
        ->toBe(1)
        ->and(DB::table('outgoing_messages')->where('kind', 'letter')->count())
        ->toBeGreaterThanOrEqual(12)
        ->and(($this->twice)('letter'))
        ->toBe(0);

    $who = implode("\n", array_map(fn(int $n): string => "new$n@shoremail.example", range(1, 20)));
    $invite = ['who' => $who, 'family' => false];
    $invite['seen'] = ($this->ask)("$this->section/invited/plan", $invite)['seen'];
    $answers = ($this->all)("$this->section/invited", $invite);
    expect(array_diff($answers, [200, 409, 422, 503]))
        ->toBe([])
        ->and($answers)
        ->toContain(200)
        ->and(DB::table('student_invitations')->count())
        ->toBe(20)
        ->and(DB::table('outgoing_messages')->where('kind', 'student')->count())
        ->toBe(20);

    // One that came back is sent again by six at once.
    $message = DB::table('outgoing_messages')->where('kind', 'letter')->orderBy('id')->first();
    DB::table('outgoing_messages')
        ->where('id', $message->id)
        ->update(['state' => 'bounced', 'problem' => 'The mailbox is full.']);
    $answers = ($this->all)("/api/messages/$message->id/again", [], 'ines.halloran');
    expect(array_count_values($answers))
        ->toMatchArray([200 => 1])
        ->and(DB::table('outgoing_messages')->where('to_address', $message->to_address)->count())
        ->toBe(2);
});

it('keeps what one of them wrote, and tells the others', function (): void {
    $id = ($this->ask)("$this->section/notices", ['kind' => 'notice', 'title' => 'Bring boots'])['notices'][0]['id'];
    $version = (int) DB::table('notices')->where('id', $id)->value('version');
    $answers = ($this->all)(
        "$this->section/notices/$id",
        fn(int $n): array => ['kind' => 'notice', 'title' => "Bring boots $n", 'version' => $version],
    );
    expect(array_count_values($answers))
        ->toMatchArray([200 => 1])
        ->and(DB::table('notices')->count())
        ->toBe(1);

    $wish = ['kind' => 'work', 'title' => 'Log', 'day' => now()->addDay()->format('Y-m-d')];
    ($this->ask)("$this->section/notices", $wish);
    $work = DB::table('notices')->where('kind', 'work')->value('id');
    $children = DB::table('enrollments')->where('section_id', $this->world->section)->pluck('person_id')->all();
    $answers = ($this->all)(
        "$this->section/notices/$work/work",
        fn(int $n): array => ['states' => array_fill_keys($children, $n % 2 === 0 ? 'missing' : 'done')],
    );
    // Each child has one state, and all of them that of one who pressed.
    expect(array_diff($answers, [200, 409, 422, 503]))
        ->toBe([])
        ->and($answers)
        ->toContain(200)
        ->and(DB::table('work_results')->where('notice_id', $work)->distinct()->count('state'))
        ->toBe(1);
});

it('tells each family once, though several workers find the hour come', function (): void {
    $this->world->insert('notices', [
        'school_id' => $this->world->school,
        'section_id' => $this->world->section,
        'kind' => 'notice',
        'readers' => 'all',
        'title' => 'Bring boots',
        'state' => 'live',
        'made_at' => now()->subDays(4),
    ]);
    // Due on the last school day at this hour, whenever the test runs.
    foreach (DB::table('people')->where('kind', 'guardian')->pluck('id') as $id) {
        DB::table('digest_choices')->insert(['person_id' => $id, 'often' => 'daily', 'at_hour' => now()->hour]);
    }
    DB::table('schools')->update(['time_zone' => 'UTC']);
    $workers = [];
    for ($n = 0; $n < 5; $n++) {
        $workers[] = proc_open(
            [PHP_BINARY, base_path('artisan'), 'vantrel:digests'],
            [['file', '/dev/null', 'r'], ['pipe', 'w'], ['pipe', 'w']],
            $pipes[$n],
            base_path(),
            [...getenv(), 'DB_DATABASE' => (string) config('database.connections.mariadb.database')],
        );
    }
    foreach ($workers as $n => $worker) {
        $said = stream_get_contents($pipes[$n][1]) . stream_get_contents($pipes[$n][2]);
        expect(proc_close($worker))->toBe(0, $said);
    }
    expect(DB::table('outgoing_messages')->where('kind', 'digest')->count())
        ->toBeGreaterThanOrEqual(12)
        ->and(($this->twice)('digest'))
        ->toBe(0);
});
