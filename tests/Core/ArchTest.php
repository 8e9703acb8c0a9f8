<?php

declare(strict_types=1);

use Tests\Support\Boundaries;
use Vantrel\Core\Records\Entity;

it('takes nothing into the core that is not passed in: no framework, no clock, no chance, no files', function (): void {
    foreach (Boundaries::files('core') as $path => $code) {
        expect(Boundaries::impurities($code))->toBe([], $path);
    }
});

it('would find each of them', function (string $code): void {
    expect(Boundaries::impurities("<?php\n$code"))->not->toBe([]);
})->with([
    ['new DateTimeImmutable;'],
    ['new DateTimeImmutable();'],
    ['new \\DateTimeImmutable("now");'],
    ["new DateTime('tomorrow');"],
    ["new DateTimeImmutable('+1 day', \$zone);"],
    ['new DateTimeImmutable(null);'],
    ["DateTimeImmutable::createFromFormat('H:i', \$x);"],
    ['$t = time();'],
    ['\\microtime(true);'],
    ["date('Y');"],
    ["gmdate('Y-m-d');"],
    ['strtotime($text);'],
    ['$a = array_map(fn () => hrtime(true), $b);'],
    ['random_int(1, 6);'],
    ['shuffle($list);'],
    ['new \\Random\\Randomizer;'],
    ['file_get_contents($path);'],
    ['getenv("HOME");'],
    ['$_SERVER["REMOTE_ADDR"];'],
    ['use Illuminate\\Support\\Str;'],
    ['use App\\Models\\Person;'],
    ['new PDO($dsn);'],
    ["config('app.key');"],
    ['now();'],
]);

it('lets the core reckon with days it is given', function (string $code): void {
    expect(Boundaries::impurities("<?php\n$code"))->toBe([]);
})->with([
    ["new DateTimeImmutable(\$day, new DateTimeZone('UTC'));"],
    ["new DateTimeImmutable('2026-01-01');"],
    ["gmdate('Y', \$seconds);"],
    ['$this->time();'],
    ['Clock::now();'],
    ['function date(string $x) {}'],
]);

arch('the core is strict and closed')
    ->expect('Vantrel\Core')
    ->toUseStrictTypes()
    ->classes()
    ->toBeFinal()
    // The kinds of record are.
    ->ignoring(Vantrel\Core\Records\Record::class);

it('has no circle between its folders, and libraries know nothing of records and plans', function (): void {
    $uses = Boundaries::foldersUsed('core', 'Vantrel\\Core');
    $storeys = [['Values', 'Names', 'Table', 'Calendar', 'Matching', 'Codes'], ['Records'], ['Plan']];
    foreach ($storeys[0] as $library) {
        expect(array_diff($uses[$library], $storeys[0]))->toBe([], $library);
    }
    expect(array_diff($uses['Records'], $storeys[0]))
        ->toBe([])
        ->and(array_diff($uses['Plan'], [...$storeys[0], 'Records']))
        ->toBe([]);
    // Taken away one after another, those that use none that are left: what cannot be is a circle.
    $left = $uses;
    while ($left !== []) {
        $free = array_keys(array_filter($left, fn(array $of): bool => array_intersect($of, array_keys($left)) === []));
        expect($free)->not->toBe([], 'a circle among ' . implode(', ', array_keys($left)));
        $left = array_diff_key($left, array_flip($free));
    }
});

$areas = [
    'Accounts',
    'CommandBox',
    'Desk',
    'Door',
    'Guardians',
    'Home',
    'Intake',
    'LookAlikes',
    'Mailroom',
    'OneRoster',
    'PrintRoom',
    'Roll',
    'Rosters',
    'Sections',
    'Settings',
    'Staffing',
    'YearTurn',
];
// The one box finds whatever the other areas have; the Desk counts what they know. A section's page shows its door and
// its staff, who come back to it. Who lets in, invites or ends an account sends mail and makes accounts; a list that
// lets people leave asks for the password again. Cards are printed for those whom the Roll knows to be without.
// Guardians without a letter mean a child as newcomers mean themselves.
$allowed = [
    'Accounts' => ['Mailroom', 'Rosters'],
    'CommandBox' => ['LookAlikes', 'Roll', 'Sections'],
    'Desk' => ['Guardians', 'LookAlikes', 'Mailroom', 'Roll'],
    'Door' => ['Accounts', 'Mailroom', 'Sections'],
    'Guardians' => ['Accounts', 'Door', 'Mailroom', 'OneRoster', 'PrintRoom', 'Roll', 'Rosters'],
    'Home' => ['Mailroom', 'Rosters'],
    'Intake' => ['Accounts', 'Mailroom', 'OneRoster', 'Rosters'],
    'PrintRoom' => ['Roll'],
    'Rosters' => ['OneRoster'],
    'Sections' => ['Door', 'Rosters', 'Staffing'],
    'Staffing' => ['Accounts', 'Mailroom', 'Sections'],
];
foreach ($areas as $area) {
    $others = array_values(
        array_filter($areas, fn(string $o): bool => $o !== $area && !in_array($o, $allowed[$area] ?? [], true)),
    );
    arch("the area $area keeps to itself")
        ->expect("App\\$area")
        ->not->toUse(array_map(fn(string $o): string => "App\\$o", $others));
}

arch('the platform knows no area')
    ->expect('App\\Platform')
    ->not->toUse([...array_map(fn(string $o): string => "App\\$o", $areas), 'App\\Ledger', 'App\\Wiring']);

it('writes tables that plans change in the ledger only', function (): void {
    // They fill empty tables, or clear away what is past its time; the guard is down or opened there.
    $may = [
        'app/Tools/Commands/SeedCommand.php',
        'app/Tools/BenchList.php',
        'app/Tools/Commands/BenchCommand.php',
        'app/Tools/Commands/BenchJoinsCommand.php',
        'app/Tools/Commands/BenchMorningCommand.php',
        'app/Tools/Commands/BenchGuardiansCommand.php',
        'app/Tools/Commands/BenchPrintCommand.php',
        'app/Accounts/CredentialUses.php',
        // Says how its own transactions lock.
        'app/Roll/Stale.php',
        // Counts tries, in a table of its own.
        'app/Platform/TryCounter.php',
        'app/Retention/CleanUp.php',
    ];
    $tables = array_map(fn(Entity $e): string => $e->value, Entity::cases());
    foreach (Boundaries::files('app') as $path => $code) {
        if (!str_starts_with($path, 'app/Ledger/') && !in_array($path, $may, true)) {
            expect(Boundaries::writes($code, $tables))->toBe([], $path);
        }
    }
});

it('would find a write wherever it hides', function (string $code): void {
    expect(Boundaries::writes("<?php\n$code", ['people', 'sign_ins']))->not->toBe([]);
})->with([
    ["DB::table('people')->where('id', 1)->update([]);"],
    ["DB::table('people')\n    ->where('id', 1)\n    ->update([]);"],
    ["DB::table('people as p')->delete();"],
    ["DB::connection('progress')->table('sign_ins')->insert([]);"],
    ['Person::query()->whereKey(1)->update([]);'],
    ["Person::query()\n ->where('id', 1)\n ->increment('version');"],
    ['Person::create([]);'],
    ['$person->update([]);'],
    ['$person->forceFill([])->save();'],
    ['$signIn->save();'],
    ["DB::update('UPDATE people SET state = 1');"],
    ["DB::statement('DELETE FROM people');"],
    ["DB::unprepared('TRUNCATE people');"],
]);
