<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

use Illuminate\Support\Facades\DB;
use PDOException;
use RuntimeException;
use Throwable;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Stay;

/**
 * Plays one history by several processes at once, each with a connection of its own, some of them killed in the middle.
 */
final class Together
{
    /** @var array<string, int> what came of the steps, to how often */
    public array $outcomes = [];

    public int $turnedBack = 0;

    public int $killed = 0;

    /**
     * @param  list<Step>  $steps
     * @param  int|null  $killAfter milliseconds after which the first process is killed
     * @return string what failed, '' where nothing did
     */
    public function play(array $steps, ?int $killAfter = null): string
    {
        RealHouse::reset();
        $beginning = RealHouse::rows();
        $actors = array_values(array_unique(array_map(fn(Step $s): int => $s->actor, $steps)));
        $out = (string) tempnam(sys_get_temp_dir(), 'history');
        // A process that is forked must not share the parent's connection.
        DB::disconnect();
        $begins = microtime(true) + 0.01;
        $children = [];
        foreach ($actors as $actor) {
            $pid = pcntl_fork();
            if ($pid === 0) {
                $this->child(
                    $actor,
                    array_filter($steps, fn(Step $s): bool => $s->actor === $actor),
                    "$out.$actor",
                    $begins,
                );
            }
            $children[$actor] = $pid;
        }
        if ($killAfter !== null) {
            usleep($killAfter * 1000);
            posix_kill(reset($children), SIGKILL);
            $this->killed++;
        }
        $whole = true;
        $failed = [];
        foreach ($children as $actor => $pid) {
            pcntl_waitpid($pid, $status);
            foreach (is_file("$out.$actor") ? (file("$out.$actor", FILE_IGNORE_NEW_LINES) ?: []) : [] as $line) {
                [$came, $step] = explode("\t", $line, 2);
                $this->outcomes[$came] = ($this->outcomes[$came] ?? 0) + 1;
                $whole =
                    $whole &&
                    !in_array($came, ['kept', 'killed'], true) &&
                    !(str_contains($step, 'sign-in') && $came === 'done');
                if ($came === 'failed') {
                    $failed[] = $step;
                }
            }
            @unlink("$out.$actor");
        }
        unlink($out);
        $this->waitForTheDead();
        $house = new RealHouse();
        $broken = [...$failed, ...Invariants::broken($house->snapshot()), ...$this->cameTooLate()];
        if ($broken !== []) {
            return implode('; ', array_unique($broken));
        }

        return $whole && $killAfter === null ? $this->turnBack($house, $beginning) : '';
    }

    /** @param  array<Step>  $steps */
    private function child(int $actor, array $steps, string $out, float $begins): never
    {
        $player = new Player(new RealHouse(), "actor $actor");
        usleep((int) max(0, ($begins - microtime(true)) * 1e6));
        foreach ($steps as $step) {
            try {
                $came = $player->play($step);
            } catch (PDOException $e) {
                // Taken back for others more often than is tried again: the page says so, and nothing is written.
                $busy = preg_match('/\b(1213|1205|1020)\b/', $e->getMessage()) === 1;
                [$came, $step] = $busy ? ['busy', $step] : ['failed', "$step: " . $e->getMessage()];
            } catch (Throwable $e) {
                [$came, $step] = ['failed', "$step: " . $e::class . ' ' . $e->getMessage()];
            }
            file_put_contents($out, "$came\t" . str_replace("\n", ' ', (string) $step) . "\n", FILE_APPEND);
        }
        // Ends without destructors: nothing of the parent's is torn down twice.
        posix_kill(getmypid(), SIGKILL);
        throw new RuntimeException('still alive');
    }

    /** @return list<string> whether the ledger lets somebody come into a section after the entry that archived it */
    private function cameTooLate(): array
    {
        $late = DB::table('ledger_changes as c')
            ->join('ledger_entries as e', 'e.seq', '=', 'c.entry_seq')
            ->join('enrollments as n', 'n.id', '=', 'c.row_id')
            ->join('sections as s', 's.id', '=', 'n.section_id')
            ->join('ledger_entries as a', 'a.seq', '=', 's.version')
            ->where('c.entity', 'enrollments')
            ->whereNull('c.was_version')
            ->whereNull('e.undone_at')
            ->where('s.state', 'archived')
            ->whereRaw('COALESCE(e.redone_as, e.seq) > COALESCE(a.redone_as, a.seq)')
            ->count();

        return $late === 0 ? [] : ["$late came into a section that was archived"];
    }

    /** The server takes back what a killed process had begun. */
    private function waitForTheDead(): void
    {
        for (
            $i = 0;
            $i < 200 &&
            (int) DB::scalar('SELECT COUNT(*) FROM information_schema.PROCESSLIST WHERE DB = DATABASE()') > 1;
            $i++
        ) {
            usleep(5_000);
        }
    }

    /** All undone, the last done first, is the beginning, row by row. */
    private function turnBack(RealHouse $house, string $beginning): string
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
        } catch (Refusal $e) {
            return 'at the end: ' . $e->getMessage();
        }
        $this->turnedBack++;

        return RealHouse::rows() === $beginning ? '' : 'all undone is not the beginning';
    }
}
