<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Mailroom\FamilyWords;
use App\Mailroom\Mail\GuardianInvitationMail;
use App\Models\School;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use stdClass;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Guardians\Invites;

/**
 * The links that guardians get, handed over: an invitation stands in the ledger first, and its mail goes out in the
 * transaction that marks it as mailed. So each goes out once, whenever a worker is killed; and whoever has been
 * withdrawn, disconnected or restricted since gets none.
 */
final readonly class InviteLinks
{
    private const CHUNK = 1000;

    public function __construct(private PlannerKit $kit) {}

    /** The token of an invitation: drawn from its id and the application's key, so that it need not be kept. */
    public function token(string $invitationId): Token
    {
        return Token::draw($this->kit->random("guardian invitation $invitationId"));
    }

    public function hash(string $invitationId): string
    {
        return $this->token($invitationId)->hash();
    }

    /**
     * Notes that mails are to be handed over: in the transaction that writes the invitations.
     *
     * @param  list<string>  $ids of invitations
     * @param  string|null  $runId of whatever asked for many
     */
    public function put(School $school, array $ids, ?string $runId): void
    {
        foreach (array_chunk($ids, self::CHUNK) as $chunk) {
            DB::table('guardian_outbox')->insert(
                array_map(
                    fn(string $id): array => ['invitation_id' => $id, 'school_id' => $school->id, 'run_id' => $runId],
                    $chunk,
                ),
            );
        }
    }

    /**
     * @param  list<string>|null  $ids only these; null for all of the school that wait
     * @param  int  $most as many at once
     * @return int how many were handed over, or are not to be any more
     */
    public function handOver(School $school, ?array $ids, int $most): int
    {
        return DB::transaction(function () use ($school, $ids, $most): int {
            $waiting = DB::table('guardian_outbox')
                ->where('school_id', $school->id)
                ->when($ids !== null, fn(Builder $q): Builder => $q->whereIn('invitation_id', $ids ?? []))
                ->orderBy('invitation_id')
                ->limit($most)
                ->lockForUpdate()
                ->pluck('invitation_id');
            $this->send($school, $waiting, false);
            DB::table('guardian_outbox')->whereIn('invitation_id', $waiting)->delete();

            return $waiting->count();
        });
    }

    public function waitingOf(string $runId): int
    {
        return DB::table('guardian_outbox')->where('run_id', $runId)->count();
    }

    /** @param  list<string>  $ids of invitations that were sent before */
    public function sendAgain(School $school, array $ids, bool $reminds): void
    {
        $this->send($school, collect($ids), $reminds);
    }

    /** @param  Collection<int, mixed>  $ids of invitations; those that are not open any more get no mail */
    private function send(School $school, Collection $ids, bool $reminds): void
    {
        $rows = DB::table('guardian_invitations')
            ->where('school_id', $school->id)
            ->where('state', 'open')
            ->whereIn('id', $ids)
            ->orderBy('id')
            ->get(['id', 'guardian_id', 'email', 'expires_at']);
        $children = DB::table('guardianships as g')
            ->join('people as s', 's.id', '=', 'g.student_id')
            ->join('people as p', 'p.id', '=', 'g.guardian_id')
            ->whereIn('g.guardian_id', $rows->pluck('guardian_id'))
            ->where('g.state', 'invited')
            ->whereNull('g.restriction')
            ->where('s.school_id', $school->id)
            ->where('s.state', 'active')
            ->where('p.state', 'active')
            ->orderBy('s.called_name')
            ->orderBy('s.id')
            ->get(['g.guardian_id', 'g.student_id', 's.called_name', 's.language as of_child', 'p.language'])
            ->groupBy('guardian_id');
        $base = rtrim((string) config('app.url'), '/');
        foreach ($rows as $row) {
            /** @var Collection<int, stdClass> $own */
            $own = $children[$row->guardian_id] ?? collect();
            $first = $own->first();
            if ($first === null) {
                continue;
            }
            Mail::to((string) $row->email)->send(
                new GuardianInvitationMail(
                    $school->id,
                    $school->name,
                    (string) $row->guardian_id,
                    array_values($own->pluck('student_id')->map(strval(...))->all()),
                    array_values($own->pluck('called_name')->map(strval(...))->all()),
                    "$base/guardian#" . $this->token((string) $row->id)->plain,
                    SchoolDay::lastWhole($school->id, (string) $row->expires_at),
                    $reminds,
                    new FamilyWords(
                        Invites::language(
                            $first->language === null ? null : (string) $first->language,
                            $first->of_child === null ? null : (string) $first->of_child,
                        ),
                    ),
                ),
            );
        }
    }
}
