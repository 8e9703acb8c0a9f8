<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

use Tests\Support\RandomSchool;
use Throwable;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Plan\Stay;

/** Plays a history in memory and looks after every step whether all that must hold does. */
final class Run
{
    /** @var array<string, array<string, int>> kind of step to what came of it to how often */
    public array $outcomes = [];

    public int $turnedBack = 0;

    /**
     * @param  list<Step>  $steps
     * @return string what failed, '' where nothing did
     */
    public function play(array $steps): string
    {
        $beginning = Histories::snapshotOf(Histories::beginning());
        $house = new MemoryHouse($beginning, $beginning->schools);
        $player = new Player($house, 'memory');
        $whole = true;
        foreach ($steps as $n => $step) {
            try {
                $before = $house->snapshot();
                $came = $player->play($step);
                $whole = $whole && $came !== 'kept' && ($step->kind !== 'sign-in' || $came !== 'done');
                if (
                    in_array($came, ['stale', 'refused'], true) &&
                    RandomSchool::contents($before) !== RandomSchool::contents($house->snapshot())
                ) {
                    return "step $n $step: $came, and something was written";
                }
                $broken = [
                    ...Invariants::broken($house->snapshot()),
                    ...Invariants::cameTooLate($before, $house->snapshot()),
                ];
                if ($broken === [] && $step->kind !== 'undo') {
                    $broken = $this->thereAndBack($house, $step);
                }
            } catch (Throwable $e) {
                $broken = [
                    $e::class . ': ' . $e->getMessage() . ' at ' . basename($e->getFile()) . ':' . $e->getLine(),
                ];
                $came = 'failed';
            }
            $this->outcomes[$step->kind][$came] = ($this->outcomes[$step->kind][$came] ?? 0) + 1;
            if ($broken !== []) {
                return "step $n $step: " . implode('; ', array_unique($broken));
            }
        }

        return $whole ? $this->turnBack($house, $beginning) : '';
    }

    /**
     * Undo of the newest entry and then redo give what was; or say that they cannot.
     *
     * @return list<string>
     */
    private function thereAndBack(MemoryHouse $house, Step $step): array
    {
        $open = array_keys(array_filter($house->entries(), fn(bool $undone): bool => !$undone));
        if ($open === [] || $step->c % 4 !== 0) {
            return [];
        }
        $there = clone $house;
        $before = $there->snapshot();
        try {
            $there->undo(end($open), false);
            $broken = Invariants::broken($there->snapshot());
            if ($broken !== []) {
                return array_map(fn(string $b): string => "after undo: $b", $broken);
            }
            $there->redo(end($open));
        } catch (Refusal) {
            return [];
        } catch (StalePlan $e) {
            return ['what was just undone cannot be done again: ' . implode(', ', $e->changed)];
        }

        return self::contents($before) === self::contents($there->snapshot())
            ? []
            : ['undo and redo give something else'];
    }

    /** All undone, the newest first, is the beginning. */
    private function turnBack(MemoryHouse $house, Snapshot $beginning): string
    {
        $open = array_keys(array_filter($house->entries(), fn(bool $undone): bool => !$undone));
        try {
            foreach (array_reverse($open) as $seq) {
                $why = $house->undo($seq, false);
                if (in_array(Stay::Taken->value, $why, true)) {
                    // An undo out of order has given its place back to another one: a name, a number.
                    return '';
                }
                if ($why !== []) {
                    return "at the end: entry $seq does not go back whole: " . implode(', ', $why);
                }
            }
        } catch (Throwable $e) {
            return 'at the end: ' . $e::class . ' ' . $e->getMessage();
        }
        $this->turnedBack++;

        return RandomSchool::contents($house->snapshot()) === RandomSchool::contents($beginning)
            ? ''
            : 'all undone is not the beginning';
    }

    /**
     * Without secrets, which nothing brings back, and with what is absent left out. @return
     * array<string, array<string, mixed>>
     */
    private static function contents(Snapshot $snapshot): array
    {
        $all = RandomSchool::contents($snapshot);
        foreach ($all as $table => $rows) {
            foreach ($rows as $id => [, $values]) {
                $all[$table][$id][1] = array_filter($values, fn(mixed $v): bool => $v !== null);
            }
        }
        foreach ($all['sign_ins'] ?? [] as $id => [, $values]) {
            unset($all['sign_ins'][$id][1]['passphrase'], $all['sign_ins'][$id][1]['password']);
        }

        return $all;
    }
}
