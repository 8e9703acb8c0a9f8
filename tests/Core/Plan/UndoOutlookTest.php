<?php

declare(strict_types=1);

// What undos come to, word for word, over a few histories: every rule of UndoPlanner, StandingAfter and Written shows
// in it. The text was read once and found right; a change that is meant is written anew with VANTREL_WRITE_PLANS=1.

use Tests\Support\Histories\Histories;
use Tests\Support\Histories\MemoryHouse;
use Tests\Support\Histories\Player;
use Vantrel\Core\Plan\LooseEnds;
use Vantrel\Core\Plan\Undo;
use Vantrel\Core\Records\Entity;

/** Records by kind and the order they are met in: people1, people2. */
function shortNames(): Closure
{
    $names = $counts = [];

    return function (string $table, string $id) use (&$names, &$counts): string {
        return $names["$table $id"] ??= $table . ($counts[$table] = ($counts[$table] ?? 0) + 1);
    };
}

function undoText(Undo $undo, Closure $name): string
{
    $stays = [];
    foreach ($undo->stays as $table => $rows) {
        foreach ($rows as $id => $why) {
            $stays[] = '    ' . $name($table, (string) $id) . ': ' . ($why->value ?: 'belongs to one that stays');
        }
    }
    sort($stays, SORT_NATURAL);
    $lost = array_map(fn(array $l): string => '    lost: ' . $name($l[0]->value, $l[1]) . " $l[2]", $undo->lost);

    return implode("\n", [
        "  $undo->seq: $undo->goesBack back, {$undo->staysCount()} stay" .
        ($undo->blocked ? ', torn' : '') .
        ($undo->first === [] ? '' : ', first ' . implode(' ', $undo->first)),
        ...$stays,
        ...$lost,
    ]);
}

it('comes to what was read and found right', function (): void {
    $lines = [];
    for ($seed = 1; $seed <= 40; $seed++) {
        $beginning = Histories::snapshotOf(Histories::beginning());
        $house = new MemoryHouse($beginning, $beginning->schools);
        $player = new Player($house, 'memory');
        $name = shortNames();
        $steps = Histories::random($seed, 10, 3, $seed % 3 !== 0);
        $lines[] =
            "history $seed: " . implode(' ', array_map(fn($s): string => $s->kind . ' ' . $player->play($s), $steps));
        foreach (array_keys(array_filter($house->entries(), fn(bool $undone): bool => !$undone)) as $seq) {
            $alone = $house->outlook($seq, false);
            $together = $house->outlook($seq, true);
            $lines[] = undoText($alone[0], $name);
            if (count($together) > 1) {
                $lines[] = '  together:';
                array_push($lines, ...array_map(fn(Undo $u): string => '  ' . undoText($u, $name), $together));
            }
        }
    }
    $text = implode("\n", $lines) . "\n";
    $file = __DIR__ . '/plans/undos.txt';
    if (getenv('VANTREL_WRITE_PLANS') === '1') {
        is_dir(dirname($file)) || mkdir(dirname($file));
        file_put_contents($file, $text);
    }
    expect($text)->toBe(is_file($file) ? (string) file_get_contents($file) : '');
});

it('ties by these columns in these states, and by no other', function (): void {
    $found = [];
    foreach (Entity::cases() as $entity) {
        foreach (array_keys($entity->references()) as $column) {
            foreach (['open', 'closed', 'archived', 'invited', 'waiting', 'mail', 'live', 'refused', null] as $state) {
                if (
                    LooseEnds::ties($entity, $column, [
                        'state' => $state,
                        'begins_on' => '2026-08-24',
                        'ends_on' => null,
                    ])
                ) {
                    $found["$entity->value.$column"][] = $state ?? 'none';
                }
            }
        }
    }
    $any = ['open', 'closed', 'archived', 'invited', 'waiting', 'mail', 'live', 'refused', 'none'];
    $working = ['open', 'invited', 'waiting', 'mail', 'live'];
    expect($found)->toBe([
        'people.merged_into' => $any,
        'sign_ins.person_id' => $any,
        'identities.person_id' => $any,
        'sections.school_year_id' => ['open'],
        'join_codes.section_id' => $working,
        'enrollments.person_id' => $any,
        'invitations.section_id' => $working,
        'join_requests.section_id' => $working,
        'room_passes.section_id' => $working,
        'guardianships.student_id' => $any,
        'guardianships.guardian_id' => $any,
    ]);
    $span = fn(string $begins, ?string $ends): bool => LooseEnds::ties(Entity::Enrollment, 'person_id', [
        'begins_on' => $begins,
        'ends_on' => $ends,
    ]);
    expect([$span('2026-08-24', '2026-08-25'), $span('2026-08-24', '2026-08-24'), $span('2026-08-24', null)])->toBe([
        true,
        false,
        true,
    ]);
});

it('knows what is over: merged accounts, archived sections, closed years', function (): void {
    $closed = [];
    foreach (Entity::cases() as $entity) {
        foreach (['active', 'merged', 'archived', 'closed', 'left'] as $state) {
            if (LooseEnds::isClosed($entity, ['state' => $state])) {
                $closed[] = "$entity->value $state";
            }
        }
    }
    expect($closed)
        ->toBe(['school_years closed', 'people merged', 'sections archived'])
        ->and(LooseEnds::isClosed(Entity::Person, []))
        ->toBeFalse();
});
