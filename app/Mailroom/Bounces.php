<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Mailroom\Bounce;
use Vantrel\Core\Mailroom\Line;
use Vantrel\Core\Mailroom\MessageState;

/** Mail that came back: the message says so, and its address is asked about. */
final class Bounces
{
    private const AT_ONCE = 500;

    /** @return int how many messages the mailbox held */
    public function read(): int
    {
        $address = (string) config('vantrel.mail.mailbox');

        return $address === '' ? 0 : Mailbox::read($address, fn(string $raw) => $this->take($raw), self::AT_ONCE);
    }

    /**
     * Only of a message that we have sent, and to whom it was sent: anybody can write a report.
     *
     * @return bool whether it was one
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
            !in_array($message->state, [MessageState::Sent, MessageState::Doubtful], true) ||
            ($bounce->to !== '' && strcasecmp($bounce->to, $message->to_address) !== 0)
        ) {
            return false;
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
