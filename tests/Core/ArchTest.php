<?php

declare(strict_types=1);

arch('the core knows no framework, no database, no clock and no chance')
    ->expect('Vantrel\Core')
    ->not->toUse(['Illuminate', 'App', 'Laravel', 'Carbon', 'PDO', 'DateTime', 'DateTimeImmutable', 'time', 'microtime', 'date', 'hrtime', 'rand', 'mt_rand', 'random_int', 'random_bytes', 'uniqid', 'shuffle', 'array_rand', 'file_get_contents', 'fopen', 'getenv']);

arch('the core is strict and closed')
    ->expect('Vantrel\Core')
    ->toUseStrictTypes()
    ->classes()->toBeFinal();

arch('the core reads no superglobals', function (): void {
    $files = new RecursiveIteratorIterator(new RecursiveDirectoryIterator(__DIR__.'/../../core', FilesystemIterator::SKIP_DOTS));
    foreach ($files as $file) {
        expect((string) file_get_contents((string) $file))->not->toMatch('/\$_(GET|POST|SERVER|ENV|COOKIE|SESSION|FILES|REQUEST)\b|\$GLOBALS/');
    }
});

$areas = ['Access', 'Desk', 'Intake', 'LookAlikes', 'Mailroom', 'PrintRoom', 'Roll', 'Sections', 'Settings', 'YearTurn'];
// The Desk counts what the other areas know; sections and the door send mail, sections ask the policies; the demo leaves a list half-done.
$allowed = ['Access' => ['Mailroom'], 'Desk' => ['LookAlikes', 'Roll'], 'Sections' => ['Access', 'Mailroom'], 'Rosters' => ['Access'], 'Intake' => ['Rosters', 'Mailroom']];
foreach ($areas as $area) {
    $others = array_values(array_filter($areas, fn (string $o): bool => $o !== $area && ! in_array($o, $allowed[$area] ?? [], true)));
    arch("the area $area keeps to itself")
        ->expect("App\\$area")
        ->not->toUse(array_map(fn (string $o): string => "App\\$o", $others));
}

arch('nothing but the ledger, the seeder and the bench writes tables that plans change', function (): void {
    $files = new RecursiveIteratorIterator(new RecursiveDirectoryIterator(__DIR__.'/../../app', FilesystemIterator::SKIP_DOTS));
    $tables = 'schools|school_years|people|sign_ins|badges|sections|enrollments|join_codes|invitations|join_requests|room_passes|guardianships|known_apart';
    foreach ($files as $file) {
        $path = (string) $file;
        if (str_contains($path, '/app/Ledger/') || str_ends_with($path, 'SeedCommand.php') || str_ends_with($path, 'BenchCommand.php') || str_ends_with($path, 'BenchJoinsCommand.php')) {
            continue;
        }
        $code = (string) file_get_contents($path);
        // The time of the last sign-in is no change of the job.
        $code = (string) preg_replace("/DB::table\('sign_ins'\)->where\('id', \\\$signIn->id\)->update\(\['last_signed_in_at' => now\(\)\]\)/", '', $code);
        expect($code)->not->toMatch("/DB::table\('(?:$tables)'\)[^;\n]*->(?:insert|update|delete|upsert)\(/", $path);
        expect($code)->not->toMatch('/(?:Person|Section|SignIn|SchoolYear|Invitation)::query\(\)[^;\n]*->(?:create|update|delete|insert|upsert)\(/', $path);
    }
});
