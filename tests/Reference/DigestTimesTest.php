<?php

declare(strict_types=1);

use Vantrel\Core\Guardians\Hears;
use Vantrel\Core\Mailroom\BoardItem;
use Vantrel\Core\Mailroom\Digest;
use Vantrel\Core\Mailroom\DigestTimes;
use Vantrel\Core\Records\NoticeKind;

// The moments at which digests are due, over both changes of the clock in six time zones, against GNU date (coreutils,
// an independent program with the system's own copy of the time zone database).

/** @return array<string, string> what GNU date says of each line, `TZ="zone" day hour` to UTC */
function gnuDate(array $lines): array
{
    $file = scratch() . '/dates';
    file_put_contents($file, implode("\n", $lines) . "\n");
    exec('LC_ALL=C TZ=UTC date -f ' . escapeshellarg($file) . " '+%Y-%m-%d %H:%M:%S' 2>&1", $said);

    return array_combine($lines, array_slice($said, 0, count($lines)));
}

const CHANGES = [
    // Zone, and the days in 2026 and 2027 around which its clock changes; the last has none and stands at a half hour.
    ['America/New_York', '2026-11-01', '2027-03-14'],
    ['Europe/Berlin', '2026-10-25', '2027-03-28'],
    ['Australia/Lord_Howe', '2026-10-04', '2027-04-04'],
    ['America/Santiago', '2026-09-06', '2027-04-04'],
    ['Asia/Kolkata', '2026-11-01', '2027-03-14'],
    ['Pacific/Auckland', '2026-09-27', '2027-04-04'],
];

it('is due when GNU date says it is that hour there, over both changes of the clock', function (
    string $zone,
    string $autumn,
    string $spring,
): void {
    $asked = [];
    foreach ([$autumn, $spring] as $change) {
        for ($day = -6; $day <= 6; $day++) {
            $then = (new DateTimeImmutable($change))->modify("$day days");
            if ((int) $then->format('N') > 5) {
                continue;
            }
            foreach ([0, 6, 17, 23] as $hour) {
                $asked[] = [
                    $then->format('Y-m-d'),
                    $hour,
                    sprintf('TZ="%s" %s %02d:00', $zone, $then->format('Y-m-d'), $hour),
                ];
            }
        }
    }
    $said = gnuDate(array_column($asked, 2));
    foreach ($asked as [$day, $hour, $line]) {
        $due = $said[$line];
        $after = (new DateTimeImmutable($due, new DateTimeZone('UTC')))->modify('+1 minute')->format('Y-m-d H:i:s');
        expect(DigestTimes::due(Hears::Daily, $hour, $zone, $after))->toBe($due, $line);
        $before = (new DateTimeImmutable($due, new DateTimeZone('UTC')))->modify('-1 second')->format('Y-m-d H:i:s');
        expect(DigestTimes::due(Hears::Daily, $hour, $zone, $before))->toBeLessThan($due);
    }
})->with(CHANGES);

it('is due on Fridays only where somebody hears once a week, and never where not at all', function (): void {
    foreach (range(0, 20) as $n) {
        $now = (new DateTimeImmutable('2026-10-20 12:00:00'))->modify("$n days")->format('Y-m-d H:i:s');
        $due = (string) DigestTimes::due(Hears::Weekly, 17, 'Europe/Berlin', $now);
        $there = (new DateTimeImmutable($due, new DateTimeZone('UTC')))->setTimezone(new DateTimeZone('Europe/Berlin'));
        expect($there->format('N H:i'))
            ->toBe('5 17:00')
            ->and(DigestTimes::due(Hears::Off, 17, 'UTC', $now))
            ->toBeNull();
    }
});

// From the tz database (2023c and later), whose text this is from memory: in Egypt the clock leaps from 0:00 to 1:00 on
// the last Friday of April, and goes back from 24:00 to 23:00 on the last Thursday of October; Samoa had no Friday, 30
// December 2011.
it('comes once where the hour is leapt over, comes twice, or the whole day is', function (
    Hears $often,
    int $hour,
    string $zone,
    string $from,
    array $due,
): void {
    $seen = [];
    for ($minute = 0; $minute < 60 * 24 * 7; $minute += 15) {
        $now = (new DateTimeImmutable($from))->modify("$minute minutes")->format('Y-m-d H:i:s');
        $seen[(string) DigestTimes::due($often, $hour, $zone, $now)] = true;
    }
    expect(array_keys($seen))->toBe($due);
})->with([
    'leapt over: at the leap' => [
        Hears::Weekly,
        0,
        'Africa/Cairo',
        '2026-04-20 12:00:00',
        ['2026-04-16 22:00:00', '2026-04-23 22:00:00'],
    ],
    'twice: at the first' => [
        Hears::Daily,
        23,
        'Africa/Cairo',
        '2026-10-27 21:00:00',
        [
            '2026-10-27 20:00:00',
            '2026-10-28 20:00:00',
            '2026-10-29 20:00:00',
            '2026-10-30 21:00:00',
            '2026-11-02 21:00:00',
        ],
    ],
    'no such day: once, at that hour of the next' => [
        Hears::Weekly,
        9,
        'Pacific/Apia',
        '2011-12-27 00:00:00',
        ['2011-12-23 19:00:00', '2011-12-30 19:00:00'],
    ],
]);

it('tells each notice once, however often somebody changes their mind and workers are late', function (): void {
    $zones = array_column(CHANGES, 0);
    for ($seed = 0; $seed < 60; $seed++) {
        mt_srand($seed);
        $zone = $zones[$seed % 6];
        $from = new DateTimeImmutable('2026-10-01 00:00:00');
        $notices = [];
        for ($n = 0; $n < 80; $n++) {
            $made = $from->modify(mt_rand(0, 60 * 24 * 60) . ' minutes')->format('Y-m-d H:i:s');
            $notices[] = new BoardItem("n$n", NoticeKind::Notice, "n$n", '', '', '', substr($made, 0, 10), $made, null);
        }
        $told = [];
        $until = $from->format('Y-m-d H:i:s');
        [$often, $hour] = [Hears::Daily, 17];
        $now = $from;
        while ($now < $from->modify('+75 days')) {
            // A worker that runs each quarter, and sometimes does not for days.
            $now = $now->modify((mt_rand(0, 40) === 0 ? mt_rand(0, 6000) : 15) . ' minutes');
            if (mt_rand(0, 60) === 0) {
                [$often, $hour] = [[Hears::Daily, Hears::Weekly][mt_rand(0, 1)], mt_rand(0, 23)];
            }
            $due = DigestTimes::due($often, $hour, $zone, $now->format('Y-m-d H:i:s'));
            if ($due === null || $due <= $until) {
                continue;
            }
            $digest = Digest::of($notices, $often, $until, $due, substr($due, 0, 10));
            foreach ($digest->new as $item) {
                $told[$item->id] = ($told[$item->id] ?? 0) + 1;
            }
            $until = $due;
        }
        expect($told)
            ->toHaveCount(80)
            ->and(array_unique(array_values($told)))
            ->toBe([1], "seed $seed");
    }
});
