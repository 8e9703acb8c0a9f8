<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Models\OutgoingMessage;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Throwable;
use Vantrel\Core\Mailroom\Bounce;
use Vantrel\Core\Mailroom\Line;
use Vantrel\Core\Mailroom\MessageState;

/** Mail that came back: the message says so, and its address is asked about. */
final class Bounces
{
    private const AT_ONCE = 500;

    private const CHUNK = 2000;

    /**
     * @param  list<string>  $addresses
     * @return array<string, string> those of them that mail came back from, and why
     */
    public static function of(array $addresses): array
    {
        $found = [];
        foreach (array_chunk(array_values(array_unique($addresses)), self::CHUNK) as $chunk) {
            foreach (
                DB::table('bounced_addresses')->whereIn('address', $chunk)->pluck('said', 'address')
                as $address => $said
            ) {
                $found[(string) $address] = (string) $said;
            }
        }

        return $found;
    }

    /**
     * Takes the reports of our messages out of the mailbox. Everything else stays there: it may be the office's own.
     *
     * @return int how many there were
     */
    public function read(): int
    {
        $address = (string) config('vantrel.mail.mailbox');
        if ($address === '') {
            return 0;
        }
        $taken = 0;
        $take = function (string $raw) use (&$taken): bool {
            try {
                $is = $this->take($raw);
            } catch (QueryException $e) {
                throw $e;
            } catch (Throwable $e) {
                // One that cannot be read stays there, looked at once, and holds up none behind it.
                report($e);

                return false;
            }
            $taken += (int) $is;

            return $is;
        };
        // Lost with the cache, it costs one more look at what is there.
        $key = 'mailbox|' . hash('xxh64', $address);
        Cache::forever($key, Mailbox::read($address, $take, Cache::get($key, []), self::AT_ONCE));

        return $taken;
    }

    /**
     * Only of a message that we have sent, and to whom it was sent: anybody can write a report.
     *
     * @return bool whether it is a report of one
     */
    public function take(string $raw): bool
    {
        $bounce = Bounce::read($raw);
        $id = $bounce === null ? null : Compose::idOf($bounce->messageId);
        $message = $id === null ? null : OutgoingMessage::query()->find($id);
        if (
            $bounce === null ||
            $message === null ||
            $message->via !== 'mail' ||
            ($bounce->to !== '' && strcasecmp($bounce->to, $message->to_address) !== 0)
        ) {
            return false;
        }
        if (!in_array($message->state, [MessageState::Sent, MessageState::Doubtful], true)) {
            return true;
        }
        $said = Line::of(trim($bounce->sentence() . ($bounce->said === '' ? '' : " Their server says: $bounce->said")));
        DB::transaction(function () use ($message, $said): void {
            $message->update(['state' => MessageState::Bounced, 'problem' => $said]);
            DB::table('bounced_addresses')->upsert(
                [
                    'address' => $message->to_address,
                    'message_id' => $message->id,
                    'said' => $said,
                    'bounced_at' => now(),
                ],
                ['address'],
            );
        });

        return true;
    }
}
