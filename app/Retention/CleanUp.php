<?php

declare(strict_types=1);

namespace App\Retention;

use App\Intake\ListFiles;
use App\Ledger\Ledger;
use App\Ledger\WriteGuard;
use App\Models\School;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Words;

/**
 * Clears away what has been kept for as long as a school says: refused askings, the files of lists, outgoing messages;
 * and what is past its use in any case. What it did stands in the ledger.
 */
final class CleanUp
{
    private const UNDER_WAY = ['waiting', 'handing'];

    private const CHUNK = 1000;

    public function __construct(private readonly Ledger $ledger) {}

    /** @return string what was cleared away, in a sentence; '' for nothing */
    public function school(School $school): string
    {
        $before = fn(int $days): string => CarbonImmutable::now('UTC')->subDays($days)->format('Y-m-d H:i:s');
        $askings = $this->askings($school->id, $before($school->keep_askings_days));
        $lists = $this->lists($school->id, $before($school->keep_lists_days));
        $messages = $this->delete(
            fn() => DB::table('outgoing_messages')
                ->where('school_id', $school->id)
                // What waits for its day has not been sent yet.
                ->whereNotIn('state', self::UNDER_WAY)
                ->where('made_at', '<', $before($school->keep_messages_days))
                // What waited for its day is kept from that day on.
                ->where(
                    fn($q) => $q->whereNull('sent_at')->orWhere('sent_at', '<', $before($school->keep_messages_days)),
                ),
        );
        $entries = $this->ledger($school->id, $school->keep_ledger_days);
        $done = array_values(
            array_filter(
                [
                    $askings === 0
                        ? ''
                        : Words::count(
                            $askings,
                            'request or invitation that was turned away or never answered',
                            'requests and invitations that were turned away or never answered',
                        ),
                    $lists === 0 ? '' : 'the files of ' . Words::count($lists, 'list'),
                    $messages === 0 ? '' : Words::count($messages, 'message'),
                    $entries === 0
                        ? ''
                        : 'the details of ' . Words::count($entries, 'entry of the Ledger', 'entries of the Ledger'),
                ],
                fn(string $d): bool => $d !== '',
            ),
        );
        if ($done === []) {
            return '';
        }
        $sentence = 'Cleared away, as Settings say: ' . Words::join($done) . '.';
        $this->ledger->apply(new Plan('Cleared away', $sentence, []), $school->id, null, Action::CleanUp);

        return $sentence;
    }

    /** Of all schools: links and sessions that are over, and counts of tries nobody asks for any more. */
    public function rest(): int
    {
        $now = CarbonImmutable::now('UTC');

        return $this->delete(fn() => DB::table('password_resets')->where('expires_at', '<', $now->subDays(7))) +
            $this->delete(
                fn() => DB::table('outgoing_messages')
                    ->whereNull('school_id')
                    ->whereNotIn('state', self::UNDER_WAY)
                    ->where('made_at', '<', $now->subDays(180)),
            ) +
            // Files nobody sent, and those of letters of which nothing is left.
            $this->delete(
                fn() => DB::table('mailing_files')->whereNull('mailing_id')->where('made_at', '<', $now->subDays(1)),
            ) +
            $this->delete(
                fn() => DB::table('mailing_files')
                    ->whereNotNull('mailing_id')
                    ->whereNotIn(
                        'mailing_id',
                        fn($q) => $q->select('mailing_id')->from('outgoing_messages')->whereNotNull('mailing_id'),
                    ),
            ) +
            $this->delete(fn() => DB::table('cache')->where('expiration', '<', $now->getTimestamp())) +
            $this->delete(fn() => DB::table('tries')->where('until', '<', $now->getTimestamp())) +
            $this->delete(fn() => DB::table('contact_changes')->where('expires_at', '<', $now->subDays(1))) +
            $this->delete(fn() => DB::table('invite_runs')->where('made_at', '<', $now->subDays(30))) +
            $this->delete(fn() => DB::table('failed_jobs')->where('failed_at', '<', $now->subDays(30))) +
            $this->delete(
                fn() => DB::table('sessions')->where('last_activity', '<', $now->subDays(91)->getTimestamp()),
            );
    }

    private function askings(string $schoolId, string $before): int
    {
        $sections = fn($q) => $q->select('id')->from('sections')->where('school_id', $schoolId);
        $students = fn($q) => $q->select('id')->from('people')->where('school_id', $schoolId);

        $refused = fn() => DB::table('join_requests')
            ->whereIn('section_id', $sections)
            ->where('state', 'refused')
            ->where('answered_at', '<', $before);

        return WriteGuard::within(
            // The invitation a request came by goes before it.
            fn(): int => $this->delete(
                fn() => DB::table('student_invitations')->whereIn(
                    'join_request_id',
                    fn($q) => $q->fromSub($refused(), 'r')->select('r.id'),
                ),
            ) +
                $this->delete($refused) +
                $this->delete(
                    fn() => DB::table('student_invitations')
                        ->whereIn('section_id', $sections)
                        ->whereIn('state', ['invited', 'declined', 'withdrawn'])
                        ->where('sent_at', '<', $before)
                        ->where('expires_at', '<', CarbonImmutable::now('UTC')),
                ) +
                $this->delete(
                    fn() => DB::table('join_requests')
                        ->whereIn('section_id', $sections)
                        ->where('state', 'mail')
                        ->where('made_at', '<', $before),
                ) +
                $this->delete(
                    fn() => DB::table('guardian_claims')
                        ->whereIn('student_id', $students)
                        ->where('state', 'refused')
                        ->where('answered_at', '<', $before),
                ) +
                $this->delete(
                    fn() => DB::table('family_askings')
                        ->where('school_id', $schoolId)
                        ->where('answered_at', '<', $before)
                        ->where(
                            fn($q) => $q
                                ->where('state', 'refused')
                                ->orWhereIn('claim_id', fn($c) => $c->select('id')->from('guardian_claims')),
                        ),
                ),
        );
    }

    /** The files go; what the list was called, when it was applied and what it did stay. */
    private function lists(string $schoolId, string $before): int
    {
        $lists = DB::table('imports')
            ->where('school_id', $schoolId)
            ->whereIn('state', ['planned', 'unreadable', 'applied'])
            ->where('changed_at', '<', $before)
            ->whereNull('cleared_at')
            ->limit(self::CHUNK)
            ->get(['id']);
        foreach ($lists as $list) {
            ListFiles::clear($list->id);
        }

        return $lists->count();
    }

    /**
     * What they changed goes, and every name in them; when it was, who did it and how much it was stay. An entry that
     * stands in several ledgers is kept for as long as one of the schools keeps it.
     */
    private function ledger(string $schoolId, int $days): int
    {
        $entries = DB::table('ledger_entries as e')
            ->where('e.school_id', $schoolId)
            ->where('e.made_at', '<', CarbonImmutable::now('UTC')->subDays($days)->format('Y-m-d H:i:s'))
            ->whereNull('e.cleared_at')
            ->whereNotExists(
                fn($q) => $q
                    ->from('ledger_schools as l')
                    ->join('schools as s', 's.id', '=', 'l.school_id')
                    ->whereColumn('l.entry_seq', 'e.seq')
                    ->where('s.keep_ledger_days', '>', $days),
            )
            ->orderBy('e.seq')
            ->limit(self::CHUNK)
            ->get(['e.seq', 'e.action']);
        foreach ($entries as $entry) {
            DB::transaction(function () use ($entry): void {
                $this->delete(fn() => DB::table('ledger_changes')->where('entry_seq', $entry->seq));
                $area = Action::from($entry->action)->area()?->label() ?? 'Done again';
                DB::table('ledger_entries')
                    ->where('seq', $entry->seq)
                    ->update([
                        'title' => "$area, details kept no longer",
                        'sentence' => 'What it changed is kept no longer, as Settings say.',
                        'kept' => null,
                        'cleared_at' => now(),
                    ]);
            });
        }

        return $entries->count();
    }

    /** @param  callable(): \Illuminate\Database\Query\Builder  $which in pieces, so that nobody waits for a lock */
    private function delete(callable $which): int
    {
        $n = 0;
        do {
            $n += $gone = $which()->limit(self::CHUNK)->delete();
        } while ($gone === self::CHUNK);

        return $n;
    }
}
