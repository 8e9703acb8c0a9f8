<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Mailroom\Http\Wishes\MessagesWish;
use App\Mailroom\Views\MessageLine;
use App\Mailroom\Views\MessagePage;
use App\Models\OutgoingMessage;
use App\Models\Person;
use App\Models\School;
use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Query\Builder as QueryBuilder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Mailroom\MessageState;
use Vantrel\Core\Plan\Refusal;

/** Messages of a school, as a coordinator reads them and does something about them. */
final readonly class MessageDesk
{
    private const PAGE = 50;

    /** Minutes after which a message that could have gone is amiss: a gateway that is down, or a worker. */
    private const LATE = 15;

    public function __construct(private Outbox $outbox) {}

    public function page(School $school, MessagesWish $wish): MessagePage
    {
        /** @var Collection<int, OutgoingMessage> $messages */
        $messages = self::of($school)
            ->when($wish->after !== null, fn(Builder $q) => $q->where('id', '<', $wish->after))
            ->when($wish->mailing !== null, fn(Builder $q) => $q->where('mailing_id', $wish->mailing))
            ->when($wish->person !== null, fn(Builder $q) => $q->where('person_id', $wish->person))
            ->when($wish->show === 'amiss', self::amiss(...))
            ->when($wish->show === 'waiting', fn(Builder $q) => $q->where('state', MessageState::Waiting))
            ->when(
                trim((string) $wish->text) !== '',
                fn(Builder $q) => $q->where(function (Builder $any) use ($wish): void {
                    $like = addcslashes(trim((string) $wish->text), '%_\\');
                    $any->where('to_address', 'like', "$like%")->orWhere('subject', 'like', "%$like%");
                }),
            )
            ->orderByDesc('id')
            ->limit(self::PAGE + 1)
            ->get();
        $shown = $messages->take(self::PAGE);
        $bounced = Bounces::of(array_values($shown->pluck('to_address')->map(strval(...))->all()));

        return new MessagePage(
            array_values(
                $shown
                    ->map(fn(OutgoingMessage $m): MessageLine => MessageLine::of($m, $bounced[$m->to_address] ?? ''))
                    ->all(),
            ),
            $messages->count() > self::PAGE ? $messages->get(self::PAGE - 1)?->id : null,
            self::amissAt($school)->count(),
            self::of($school)->where('state', MessageState::Waiting)->count(),
            self::narrowed($school, $wish),
        );
    }

    /** What the list is narrowed to, in words; '' where it is not, or that is not of the school. */
    private static function narrowed(School $school, MessagesWish $wish): string
    {
        return match (true) {
            $wish->mailing !== null => (string) DB::table('mailings')
                ->where('id', $wish->mailing)
                ->where('school_id', $school->id)
                ->value('subject'),
            $wish->person !== null => (string) Person::query()
                ->where('id', $wish->person)
                ->where('school_id', $school->id)
                ->first()
                ?->fullName(),
            default => '',
        };
    }

    /** Messages that somebody has to look at: refused, come back, in doubt, or waiting for long. */
    public static function amissAt(School $school): QueryBuilder
    {
        return self::amiss(self::of($school))->toBase();
    }

    /** Why mail to the same address came back, '' where none has. */
    public function bounced(OutgoingMessage $message): string
    {
        return Bounces::of([$message->to_address])[$message->to_address] ?? '';
    }

    /** @throws Refusal */
    public function again(OutgoingMessage $message): OutgoingMessage
    {
        if (!in_array($message->state, MessageState::amiss(), true)) {
            throw new Refusal('Only what did not go, or came back, is sent again.');
        }
        if ($message->bare) {
            throw new Refusal('The link in it was theirs alone and is not kept. Set this aside, and send a new one.');
        }

        return DB::transaction(function () use ($message): OutgoingMessage {
            // Of two who press at one time, one sends it.
            $first = OutgoingMessage::query()
                ->where('id', $message->id)
                ->whereNull('settled_at')
                ->update(['settled_at' => now()]);
            if ($first === 0) {
                throw new Refusal('Somebody has looked at this one already.');
            }
            $this->settle($message->refresh());
            $children = DB::table('message_children')->where('message_id', $message->id)->pluck('student_id');
            $to = self::addressNow($message) ?? $message->to_address;

            $again = $this->outbox->put(
                new Headers(
                    $message->school_id,
                    $message->kind,
                    $message->from_name,
                    $message->person_id,
                    array_values($children->map(strval(...))->all()),
                    $message->language,
                    $message->about_id,
                ),
                $message->via,
                $to,
                $message->subject,
                $message->text,
                $message->html,
            );
            // Of the same letter, with its files and whom it is answered to.
            $again->update(['mailing_id' => $message->mailing_id, 'reply_to' => $message->reply_to]);

            return $again;
        });
    }

    /** @return string|null where whoever it is for is reached now; null where it goes where it went */
    private static function addressNow(OutgoingMessage $message): ?string
    {
        $person = $message->kind->goesToAddressNow() ? Person::query()->find($message->person_id)?->now() : null;

        return $message->via === 'text' ? $person?->phone : $person?->email;
    }

    public function settle(OutgoingMessage $message): void
    {
        DB::transaction(function () use ($message): void {
            $message->update(['settled_at' => $message->settled_at ?? now()]);
            DB::table('bounced_addresses')->where('message_id', $message->id)->delete();
        });
    }

    /** @throws Refusal where it is too late */
    public function stop(OutgoingMessage $message, Person $actor): void
    {
        $done = OutgoingMessage::query()
            ->where('id', $message->id)
            ->where('state', MessageState::Waiting)
            ->update(['state' => MessageState::Stopped, 'problem' => "Stopped by {$actor->fullName()}."]);
        if ($done === 0) {
            throw new Refusal('It does not wait any more.');
        }
    }

    /** @return Builder<OutgoingMessage> */
    private static function of(School $school): Builder
    {
        return OutgoingMessage::query()->where('school_id', $school->id);
    }

    /**
     * @param  Builder<OutgoingMessage>  $query
     * @return Builder<OutgoingMessage>
     */
    private static function amiss(Builder $query): Builder
    {
        return $query
            ->whereNull('settled_at')
            ->where(
                fn(Builder $q) => $q
                    ->whereIn('state', MessageState::amiss())
                    ->orWhere(
                        fn(Builder $late) => $late
                            ->where('state', MessageState::Waiting)
                            ->where('next_at', '<', CarbonImmutable::now('UTC')->subMinutes(self::LATE)),
                    ),
            );
    }
}
