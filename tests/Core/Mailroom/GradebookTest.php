<?php

declare(strict_types=1);

use Vantrel\Core\Mailroom\FromGradebook;
use Vantrel\Core\OneRoster\Gradebook;
use Vantrel\Core\OneRoster\KnownUser;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Notice;
use Vantrel\Core\Records\WorkResult;
use Vantrel\Core\Table\DelimitedText;
use Vantrel\Core\Table\UnreadableList;

const WORKS = "sourcedId,status,dateLastModified,title,description,assignDate,dueDate,classSourcedId\n";
const RESULTS = "sourcedId,status,dateLastModified,lineItemSourcedId,studentSourcedId,scoreStatus,score,missing\n";

/** @param  array<string, string>  $more tables besides */
function gradebook(string $works, string $results = '', array $more = []): Gradebook
{
    $tables = ['lineitems' => WORKS . $works, 'results' => RESULTS . $results, ...$more];

    return Gradebook::read(
        array_map(fn(string $text): iterable => DelimitedText::lines($text, ','), $tables),
        'America/New_York',
    );
}

/**
 * @param  list<Notice>  $notices
 * @param  list<WorkResult>  $kept
 */
function brought(Gradebook $book, array $notices = [], array $kept = []): Plan
{
    return FromGradebook::plan(
        $book,
        ['c' => 'heron'],
        ['heron' => '3 Heron'],
        ['a' => 'ada', 'k' => 'kit', 'x' => 'moved'],
        ['heron' => ['ada', 'kit']],
        $notices,
        $kept,
        'school',
        'petra',
        new Occasion(new Ids('01K3CNQ0000000000000000000'), '2026-11-25', '2026-11-25 15:00:00'),
    );
}

/** @return list<Notice|WorkResult> what a plan leaves, of what was there */
function leaves(Plan $plan, array $before = []): array
{
    $rows = [];
    foreach ($before as $record) {
        $rows[$record->id] = $record;
    }
    foreach ($plan->changes as $change) {
        $class = $change->entity->record();
        $rows[$change->id] = new $class($change->id, 1, [...$rows[$change->id]->values ?? [], ...$change->after]);
    }

    return array_values($rows);
}

it('reads days as they are at the school, and says what it cannot read', function (): void {
    $book = gradebook(
        "w1,active,,Log,,,2026-12-04,c\n" .
            // The last minute of a Thursday in New York.
            "w2,active,,Map,,,2026-12-04T04:59:00Z,c\n" .
            "w3,active,,Boats,,,2026-12-04T00:00:00Z,c\n" .
            "w4,active,,,,,2026-12-04,c\nw5,active,,Nets,,,soon,c\nw6,tobedeleted,,,,,,c\n",
        "r1,active,,w1,a,fully graded,9,\nr2,active,,nowhere,a,submitted,,\nr3,active,,w1,k,lost,,\nr4,tobedeleted,,w1,k,lost,,\n",
    );
    expect(array_map(fn($w): string => "$w->title $w->day", array_values($book->works)))
        ->toBe(['Log 2026-12-04', 'Map 2026-12-03', 'Boats 2026-12-04', ' '])
        ->and(array_map(fn(array $l): string => implode(' ', $l), $book->leftOut))
        ->toBe([
            'lineItems.csv, row 5 has no title.',
            'lineItems.csv, row 6 has no day it is due on that can be read.',
            'results.csv, row 3 is of no work in lineItems.csv.',
            'results.csv, row 4 has a scoreStatus that is none: “lost”.',
        ]);
    expect(fn() => Gradebook::read([], 'UTC'))->toThrow(UnreadableList::class, 'no lineItems.csv');
    expect(
        fn() => Gradebook::read(['lineitems' => DelimitedText::lines("sourcedId,title\nw,x\n", ',')], 'UTC'),
    )->toThrow(UnreadableList::class, 'lineItems.csv has no column dueDate');
});

it('brings in what is due and what is missing, of the section’s students alone, and no marks', function (): void {
    $plan = brought(
        gradebook(
            "w1,active,,Reading log,Page 4,,2026-11-20,c\nw2,active,,Harbor map,,,2026-12-01,c\nw3,active,,Elsewhere,,,2026-12-01,d\n",
            "r1,active,,w1,a,fully graded,9.5,\nr2,active,,w1,k,not submitted,,\nr3,active,,w1,x,not submitted,,\n" .
                "r4,active,,w1,stranger,submitted,,\nr5,active,,w2,a,not submitted,,\nr6,active,,w2,k,exempt,,\n",
        ),
    );
    $of = fn(Entity $entity): array => array_values(
        array_map(
            fn(Change $c): array => $c->after,
            array_filter($plan->changes, fn(Change $c): bool => $c->entity === $entity),
        ),
    );
    expect(array_map(fn(array $n): array => [$n['title'], $n['on_day'], $n['gone_through_at']], $of(Entity::Notice)))
        ->toBe([
            ['Reading log', '2026-11-20', '2026-11-25 15:00:00'],
            ['Harbor map', '2026-12-01', '2026-11-25 15:00:00'],
        ])
        ->and(array_map(fn(array $r): string => "{$r['person_id']} {$r['state']}", $of(Entity::WorkResult)))
        // Nothing has come yet of what is due next week: that is no news.
        ->toBe(['ada done', 'kit missing', 'kit excused'])
        ->and($plan->sentence)
        ->toBe('2 pieces of work new, 1 missing in all.')
        ->and($plan->warnings)
        ->toBe([
            '1 piece of work is of no section here and left out.',
            '1 result is of nobody known here.',
            '1 result is of students not in the section.',
        ])
        ->and(json_encode($plan->changes))
        ->not->toContain('9.5');
});

it('changes nothing the second time, and only what the gradebook has changed the third', function (): void {
    $first = gradebook(
        "w1,active,,Log,,,2026-11-20,c\nw2,active,,Map,,,2026-11-21,c\n",
        "r1,active,,w1,a,not submitted,,\n",
    );
    $there = leaves(brought($first));
    $notices = array_values(array_filter($there, fn($r): bool => $r instanceof Notice));
    $kept = array_values(array_filter($there, fn($r): bool => $r instanceof WorkResult));
    $again = brought($first, $notices, $kept);
    expect($again->changes)->toBe([])->and($again->sentence)->toBe('Nothing is new in it.');
    $third = brought(
        gradebook("w1,active,,Log,,,2026-11-23,c\nw2,tobedeleted,,,,,,c\n", "r1,active,,w1,a,submitted,,\n"),
        $notices,
        $kept,
    );
    expect(array_map(fn(PlanRow $r): string => $r->verdict->value, $third->rows))
        ->toBe(['leaving', 'update'])
        ->and(leaves($third, $there)[0]->day())
        ->toBe('2026-11-23')
        ->and(leaves($third, $there)[2]->isLive())
        ->toBeFalse()
        ->and(leaves($third, $there)[1]->state()->value)
        ->toBe('done');
    // What somebody has withdrawn here stays so; work the file does not name stays as it is.
    $withdrawn = new Notice($notices[0]->id, 1, [...$notices[0]->values, 'state' => 'withdrawn']);
    expect(brought($first, [$withdrawn, $notices[1]], $kept)->changes)->toBe([]);
});

it('takes the gradebook’s own word for missing before the day, and keeps titles to what is kept', function (): void {
    $plan = brought(
        gradebook(
            'w1,active,,' . str_repeat('Long ', 40) . ",\"two\nlines\x07\",,2026-12-01,c\n",
            "r1,active,,w1,a,not submitted,,true\nr2,active,,w1,k,exempt,,true\n",
        ),
    );
    $notice = leaves($plan)[0];
    expect(mb_strlen($notice->title()))
        ->toBeLessThanOrEqual(120)
        ->and($notice->body())
        ->toBe("two\nlines")
        ->and(leaves($plan)[1]->state()->value)
        ->toBe('missing')
        ->and(leaves($plan)[2]->state()->value)
        ->toBe('excused');
});

it('names some of the rows it leaves out, and counts all', function (): void {
    $plan = brought(gradebook(str_repeat("w,active,,,,,2026-12-01,c\n", 25)));
    expect($plan->warnings)
        ->toHaveCount(21)
        ->and($plan->warnings[20])
        ->toBe('5 more rows are left out for such reasons.');
    expect(fn() => gradebook(str_repeat("w,active,,x,,,2026-12-01,c\n", 60_001)))->toThrow(
        UnreadableList::class,
        'lineItems.csv has more than 60,000 rows',
    );
});

it('finds the section of a class by our id, else by a name that one section has', function (): void {
    $open = ['sec1' => '3 Heron', 'sec2' => '3 Plover', 'sec3' => 'Art', 'sec4' => 'art'];
    $book = fn(string ...$classes): Gradebook => gradebook(
        implode('', array_map(fn(string $c): string => "w$c,active,,Log,,,2026-12-01,$c\n", $classes)),
        more: ['classes' => "sourcedId,title\n77,3 PLOVER\n78,Art\n"],
    );
    expect($book('sec1', '77', '78', 'none')->sections($open, null))
        ->toBe(['sec1' => 'sec1', 77 => 'sec2'])
        ->and($book('sec1', '77')->sections($open, 'sec2'))
        ->toBe([77 => 'sec2'])
        ->and($book('none')->sections($open, 'sec1'))
        ->toBe(['none' => 'sec1'])
        // Of several none of which is known, nothing is guessed.
        ->and($book('none', 'other')->sections($open, 'sec1'))
        ->toBe([])
        ->and($book('sec2')->sections($open, 'sec1'))
        ->toBe([]);
});

it('knows students by our id, then their number, then their user name, and nobody by what two have', function (): void {
    $book = gradebook(
        "w1,active,,Log,,,2026-12-04,c\n",
        "r1,active,,w1,id-a,submitted,,\nr2,active,,w1,u2,submitted,,\nr3,active,,w1,u3,submitted,,\n" .
            "r4,active,,w1,u4,submitted,,\nr5,active,,w1,u5,submitted,,\nr6,active,,w1,u6,submitted,,\n" .
            // Known to nobody, and by the name the book itself calls them.
            "r7,active,,w1,u7,submitted,,\nr8,active,,w1,Ben,submitted,,\n",
        [
            'users' =>
                "sourcedId,identifier,username\nu2,4471,\nu3,,Kit.Moss\nu4,twice,\nu5,4472,mara.reed\n" .
                // A number that is somebody else's user name is a number.
                "u6,kit.moss,\n",
        ],
    );
    $known = [
        new KnownUser('id-a', '1', 'ada', 'id-a'),
        new KnownUser('id-b', '4471', 'ben', 'id-b'),
        new KnownUser('id-k', null, 'kit.moss', 'id-k'),
        new KnownUser('id-t', 'twice', null, 'id-t'),
        new KnownUser('id-u', 'twice', null, 'id-u'),
        // Merged since: both accounts are the one.
        new KnownUser('id-m', '4472', null, 'id-n'),
        new KnownUser('id-n', null, 'mara.reed', 'id-n'),
        new KnownUser('id-o', 'kit.moss', null, 'id-o'),
    ];
    expect($book->students($known))
        ->toBe(['id-a' => 'id-a', 'u2' => 'id-b', 'u3' => 'id-k', 'u5' => 'id-n', 'u6' => 'id-o', 'Ben' => 'id-b'])
        ->and($book->keys())
        ->toContain('id-a', 'u2', '4471', 'Kit.Moss');
});
