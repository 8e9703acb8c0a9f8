<?php

declare(strict_types=1);

namespace App\Mailroom\Jobs;

use App\Mailroom\Fate;
use App\Mailroom\Handed;
use App\Mailroom\MailGateway;
use App\Mailroom\Outbox;
use App\Mailroom\TextGateway;
use App\Models\OutgoingMessage;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Str;
use Throwable;

/**
 * Hands over what waits, until nothing is due. Several may run at once, each with messages of its own; it may be killed
 * at any moment.
 */
final class HandOver implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;

    public int $tries = 3;

    private const AT_ONCE = 50;

    /** Seconds until a gateway that does not answer is asked again. */
    private const PAUSE = 60;

    private const FAULT = 'It could not be put together; the log of the server says why.';

    /** @param  int  $seconds after which the rest is the next job's: a worker has other work too, and may be ended */
    public function __construct(private readonly int $seconds = 10) {}

    public function handle(Outbox $outbox, TextGateway $texts): void
    {
        $outbox->findLost();
        $claim = (string) Str::ulid();
        $mail = null;
        $until = microtime(true) + $this->seconds;
        // A gateway that does not answer is asked once a job, not once for every few messages; and it holds up nothing
        // that goes by the other.
        $down = [];
        while (($messages = $outbox->claim($claim, self::AT_ONCE, array_keys($down))) !== []) {
            foreach ($messages as $message) {
                if (microtime(true) >= $until) {
                    $outbox->release($claim, 0);
                    $mail?->stop();
                    self::dispatch();

                    return;
                }
                if (isset($down[$message->via]) || !$outbox->begin($message)) {
                    continue;
                }
                try {
                    $handed =
                        $message->via === 'text'
                            ? $texts->hand($message)
                            : ($mail ??= MailGateway::configured())->hand($message);
                } catch (Throwable $e) {
                    // One that cannot be put together holds up none of the others.
                    report($e);
                    $mail?->stop();
                    $handed = new Handed(Fate::Later, self::FAULT);
                }
                $this->mark($outbox, $message, $handed);
                if ($handed->fate === Fate::Unreached) {
                    $down[$message->via] = true;
                }
            }
            if ($down !== []) {
                $outbox->release($claim, self::PAUSE);
            }
        }
        $mail?->stop();
    }

    private function mark(Outbox $outbox, OutgoingMessage $message, Handed $handed): void
    {
        match ($handed->fate) {
            Fate::Taken => $outbox->sent($message),
            Fate::Unknown => $outbox->doubtful($message),
            Fate::Unreached => $outbox->unreached($message, $handed->said, self::PAUSE),
            Fate::Later => $outbox->refused($message, $handed->said, false),
            Fate::Never => $outbox->refused($message, $handed->said, true),
        };
    }
}
