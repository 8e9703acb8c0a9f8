<?php

declare(strict_types=1);

namespace App\Mailroom\Commands;

use App\Mailroom\Bounces;
use App\Mailroom\Jobs\HandOver;
use App\Mailroom\Outbox;
use Illuminate\Console\Command;
use RuntimeException;

/** What no request asks for: mail whose time has come, mail a lost worker had, and mail that came back. */
final class MailCommand extends Command
{
    protected $signature = 'vantrel:mail {--now : hand over here and now, without the queue}';

    protected $description = 'Hand over mail that is due, and read what came back';

    public function handle(Outbox $outbox, Bounces $bounces): int
    {
        $lost = $outbox->findLost();
        if ($lost > 0) {
            $this->warn("$lost may or may not have gone: their worker was lost. They stand in the Mailroom.");
        }
        if ($outbox->isDue()) {
            $this->option('now') ? HandOver::dispatchSync() : HandOver::dispatch();
        }
        try {
            $bounces->read();
        } catch (RuntimeException $e) {
            $this->error($e->getMessage());

            return self::FAILURE;
        }

        return self::SUCCESS;
    }
}
