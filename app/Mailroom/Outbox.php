<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Mailroom\Jobs\HandOver;
use App\Models\OutgoingMessage;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\Database\ConcurrencyErrorDetector;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Vantrel\Core\Mailroom\Line;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Mailroom\MessageState;
use Vantrel\Core\Mailroom\Retry;

/**
 * Messages on their way to a gateway. A worker claims some, marks each as being handed over, hands it over, and marks
 * it as sent: so a message that a worker was lost with is known, and none is handed over twice.
 */
final class Outbox
{
    /** Seconds after which a worker that has not come back is taken for lost. */
    public const LEASE = 300;

    private const AT_ONCE = 500;

    private const TRIES = 3;

    /** Milliseconds from one of them to the next. */
    private const HELD_UP = 200;

    private const DOUBT = 'The worker was lost at the moment it went out: it may have arrived.';

    /** Whether a worker is asked for once what is open now has been committed. */
    private bool $asking = false;

    public function __construct(
        private readonly Gateways $gateways,
        private readonly ConcurrencyErrorDetector $detector,
    ) {}

    /** Keeps a message for its turn; part of whatever transaction is open. */
    public function put(
        Headers $about,
        string $via,
        string $to,
        string $subject,
        string $text,
        ?string $html,
    ): OutgoingMessage {
        $goes = $this->gateways->take($via);
        $now = CarbonImmutable::now('UTC')->format('Y-m-d H:i:s');
        $message = OutgoingMessage::query()->create([
            'id' => (string) Str::ulid(),
            'school_id' => $about->schoolId,
            'via' => $via,
            'kind' => $about->kind,
            'turn' => $about->kind->turn(),
            'person_id' => $about->personId,
            'to_address' => $to,
            'subject' => Line::of($subject),
            'language' => $about->language,
            'about_id' => $about->aboutId,
            'from_name' => mb_substr(Line::of($about->from), 0, 120),
            'text' => $text,
            'html' => $html,
            'made_at' => $now,
            'state' => $goes ? MessageState::Waiting : MessageState::Kept,
            'next_at' => $goes ? $now : null,
        ]);
        if ($about->children !== []) {
            DB::table('message_children')->insert(
                array_map(
                    fn(string $id): array => ['message_id' => $message->id, 'student_id' => $id],
                    $about->children,
                ),
            );
        }
        if ($goes) {
            $this->ask();
        }

        return $message;
    }

    /**
     * Many at once, in statements of some hundreds; part of whatever transaction is open.
     *
     * @param  string|null  $replyTo whoever wrote it
     * @param  string  $goesAt UTC instant
     * @param  list<Written>  $letters
     */
    public function putMany(
        string $schoolId,
        string $mailingId,
        string $from,
        ?string $replyTo,
        string $goesAt,
        array $letters,
    ): void {
        $goes = ['mail' => $this->gateways->take('mail'), 'text' => $this->gateways->take('text')];
        $now = CarbonImmutable::now('UTC')->format('Y-m-d H:i:s');
        foreach (array_chunk($letters, self::AT_ONCE) as $chunk) {
            $rows = $children = [];
            foreach ($chunk as $letter) {
                $id = (string) Str::ulid();
                $rows[] = [
                    'id' => $id,
                    'school_id' => $schoolId,
                    'via' => $letter->via,
                    'kind' => MessageKind::Letter->value,
                    'turn' => MessageKind::Letter->turn(),
                    'person_id' => $letter->personId,
                    'to_address' => $letter->to,
                    'subject' => $letter->subject,
                    'language' => $letter->language,
                    'from_name' => mb_substr(Line::of($from), 0, 120),
                    'reply_to' => $replyTo,
                    'text' => $letter->text,
                    'html' => null,
                    'made_at' => $now,
                    'state' => $goes[$letter->via] ? MessageState::Waiting->value : MessageState::Kept->value,
                    'next_at' => $goes[$letter->via] ? $goesAt : null,
                    'mailing_id' => $mailingId,
                ];
                foreach ($letter->children as $child) {
                    $children[] = ['message_id' => $id, 'student_id' => $child];
                }
            }
            DB::table('outgoing_messages')->insert($rows);
            DB::table('message_children')->insert($children);
        }
        if (in_array(true, $goes, true)) {
            $this->ask();
        }
    }

    /**
     * The next whose time has come, for one worker; what others have is passed over.
     *
     * @param  list<string>  $down ways out that do not answer
     * @return list<OutgoingMessage>
     */
    public function claim(string $claim, int $most, array $down = []): array
    {
        $now = CarbonImmutable::now('UTC');
        $ids = DB::transaction(function () use ($claim, $most, $down, $now) {
            $ids = DB::table('outgoing_messages')
                // In the order of the index: sorted, all that wait would be read, and locked, for each few.
                ->forceIndex('turns')
                ->where('state', MessageState::Waiting->value)
                ->where('next_at', '<=', $now)
                ->whereNotIn('via', $down)
                ->where(fn(Builder $q) => $q->whereNull('claimed_until')->orWhere('claimed_until', '<', $now))
                ->orderBy('turn')
                ->orderBy('next_at')
                ->orderBy('id')
                ->limit($most)
                ->lock('for update skip locked')
                ->pluck('id');
            DB::table('outgoing_messages')
                ->whereIn('id', $ids)
                ->update(['claim' => $claim, 'claimed_until' => $now->addSeconds(self::LEASE)]);

            return $ids;
        });

        DB::table('outgoing_messages as m')
            ->whereIn('m.id', MayStillHear::ofThoseWhoLeft($ids))
            ->update(self::stopped());

        return array_values(
            OutgoingMessage::query()
                ->whereIn('id', $ids)
                ->where('state', MessageState::Waiting)
                ->orderBy('turn')
                ->orderBy('id')
                ->get()
                ->all(),
        );
    }

    /**
     * Marks a message as being handed over, if it still may be: in one statement, so that whoever has been
     * disconnected, restricted or withdrawn a moment ago gets nothing.
     *
     * @return bool whether to go on with it
     */
    public function begin(OutgoingMessage $message): bool
    {
        $query = DB::table('outgoing_messages as m')
            ->where('m.id', $message->id)
            ->where('m.state', MessageState::Waiting->value)
            ->where('m.claim', $message->claim);
        // Few have been merged since it was written: they are looked for once it is nobody as they were.
        foreach ([false, true] as $merged) {
            $free = MayStillHear::narrow($query->clone(), $message->kind, $merged);
            // A plan that is applied to the same people meanwhile may hold it up.
            $begun = retry(
                self::TRIES,
                fn(): int => $free->clone()->update(self::handing($message)),
                self::HELD_UP,
                $this->detector->causedByConcurrencyError(...),
            );
            if ($begun === 1) {
                return true;
            }
        }
        $query->update(self::stopped());

        return false;
    }

    /** Once it has gone, what only its receiver may use is kept nowhere else. */
    public function sent(OutgoingMessage $message): void
    {
        $bare = Secrets::hide($message->text);
        $this->mark($message, [
            'state' => MessageState::Sent->value,
            'sent_at' => now(),
            'problem' => null,
            ...$bare === $message->text || Secrets::areOpen()
                ? []
                : [
                    'text' => $bare,
                    'html' => $message->html === null ? null : Secrets::hide($message->html),
                    'subject' => Secrets::hide($message->subject),
                    'bare' => true,
                ],
        ]);
    }

    /** The gateway would not take it: for now, or for good. */
    public function refused(OutgoingMessage $message, string $problem, bool $forGood): void
    {
        $tries = $message->tries + 1;
        $after = $forGood ? null : Retry::after($tries);
        $this->mark(
            $message,
            $after === null
                ? [
                    'state' => MessageState::Refused->value,
                    'problem' => Line::of($forGood ? $problem : "Given up after $tries tries. $problem"),
                    'tries' => $tries,
                ]
                : [
                    'state' => MessageState::Waiting->value,
                    'problem' => Line::of($problem),
                    'tries' => $tries,
                    'next_at' => now()->addSeconds($after),
                ],
        );
    }

    /**
     * The gateway does not answer, or does not let us in: that is no fault of the message, which waits.
     *
     * @param  string  $why '' where nothing was answered
     */
    public function unreached(OutgoingMessage $message, string $why, int $seconds): void
    {
        $this->mark($message, [
            'state' => MessageState::Waiting->value,
            'problem' => Line::of($why ?: 'The gateway does not answer; it is tried again by itself.'),
            'next_at' => now()->addSeconds($seconds),
        ]);
    }

    /** It may have gone, for all that is known. */
    public function doubtful(OutgoingMessage $message): void
    {
        $this->mark($message, ['state' => MessageState::Doubtful->value, 'problem' => self::DOUBT]);
    }

    /** Gives back what a worker has not come to: nothing of it has left. */
    public function release(string $claim, int $seconds): void
    {
        DB::table('outgoing_messages')
            ->where('claim', $claim)
            ->where('state', MessageState::Waiting->value)
            ->update(['claim' => null, 'claimed_until' => null, 'next_at' => now()->addSeconds($seconds)]);
    }

    /** @return int how many messages of lost workers may or may not have gone */
    public function findLost(): int
    {
        return DB::table('outgoing_messages')
            ->where('state', MessageState::Handing->value)
            ->where('claimed_until', '<', CarbonImmutable::now('UTC'))
            ->update(['state' => MessageState::Doubtful->value, 'problem' => self::DOUBT, 'claimed_until' => null]);
    }

    /** Whether anything is due that nobody has. */
    public function isDue(): bool
    {
        $now = CarbonImmutable::now('UTC');

        return DB::table('outgoing_messages')
            ->where('state', MessageState::Waiting->value)
            ->where('next_at', '<=', $now)
            ->where(fn(Builder $q) => $q->whereNull('claimed_until')->orWhere('claimed_until', '<', $now))
            ->exists();
    }

    /** A worker, once for all that one transaction writes. */
    private function ask(): void
    {
        if ($this->asking) {
            return;
        }
        $this->asking = true;
        DB::afterCommit(function (): void {
            $this->asking = false;
            HandOver::dispatch();
        });
    }

    /** What was written has been taken back, and whoever waits for it with it. */
    public function rolledBack(): void
    {
        $this->asking = false;
    }

    /** @return array<string, mixed> */
    private static function stopped(): array
    {
        return [
            'm.state' => MessageState::Stopped->value,
            'm.problem' => 'They may not hear of it any more.',
            'm.claimed_until' => null,
        ];
    }

    /** @return array<string, mixed> */
    private static function handing(OutgoingMessage $message): array
    {
        return [
            'm.state' => MessageState::Handing->value,
            'm.claimed_until' => CarbonImmutable::now('UTC')->addSeconds(self::LEASE),
        ];
    }

    /** @param  array<string, mixed>  $with */
    private function mark(OutgoingMessage $message, array $with): void
    {
        DB::table('outgoing_messages')
            ->where('id', $message->id)
            ->where('claim', $message->claim)
            ->where('state', MessageState::Handing->value)
            ->update([...$with, 'claim' => null, 'claimed_until' => null]);
    }
}
