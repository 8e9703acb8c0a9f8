<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Models\OutgoingMessage;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Support\Facades\Http;

/** A gateway for text messages: one call each, `{id, to, text}` in JSON, with the id as what makes it happen once. */
final class TextGateway
{
    /** RFC 9110, RFC 6585: no key of ours, nothing paid, too many at once, or out of service, whatever the message. */
    private const OF_US = [401, 402, 407, 429, 503];

    /** May be the message, or how it is asked: tried again, and given up in the end. */
    private const PERHAPS = [403, 404, 405, 408, 425];

    public function hand(OutgoingMessage $message): Handed
    {
        try {
            $answer = Http::withToken((string) config('vantrel.texts.key'))
                ->withHeaders(['Idempotency-Key' => $message->id])
                ->connectTimeout(5)
                ->timeout(20)
                ->withoutRedirecting()
                ->post((string) config('vantrel.texts.url'), [
                    'id' => $message->id,
                    'to' => $message->to_address,
                    'text' => $message->text,
                ]);
        } catch (ConnectionException) {
            // Asked again with the same key, it is sent once.
            return new Handed(Fate::Unreached);
        }
        if ($answer->successful()) {
            return new Handed(Fate::Taken);
        }
        $said = $answer->json('error');
        $said = 'The text gateway says: ' . (is_string($said) ? $said : "status {$answer->status()}");
        if (in_array($answer->status(), self::OF_US, true)) {
            return new Handed(Fate::Unreached, "$said. Until it takes texts again, this waits.");
        }
        $never = $answer->clientError() && !in_array($answer->status(), self::PERHAPS, true);

        return new Handed($never ? Fate::Never : Fate::Later, $said);
    }
}
