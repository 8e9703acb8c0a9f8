<?php

declare(strict_types=1);

use App\Mailroom\Headers;
use App\Mailroom\Outbox;
use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\DB;
use Tests\Support\MailStandIn;
use Tests\Support\ServerTestCase;
use Tests\Support\World;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Mailroom\MessageState;

it(
    'hands each message over once, or knows which it cannot say, though its worker is killed 20 times',
    function (): void {
        $own = (string) config('database.connections.mariadb.database');
        $database = $own . '_mail';
        ServerTestCase::useDatabase($database);
        $gateway = MailStandIn::start();
        config(['queue.default' => 'null']);
        try {
            $world = World::make();
            $about = new Headers($world->school, MessageKind::Account);
            $total = 400;
            for ($n = 0; $n < $total; $n++) {
                app(Outbox::class)->put($about, 'mail', "g$n@shoremail.example", 'Room 4', 'Hello', null);
            }
            $worker = fn() => proc_open(
                [PHP_BINARY, base_path('artisan'), 'vantrel:mail', '--now'],
                [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
                $pipes,
                base_path(),
                [...getenv(), ...$gateway->settings(), 'DB_DATABASE' => $database, 'QUEUE_CONNECTION' => 'sync'],
            );
            $seed = crc32('killed');
            mt_srand($seed);
            for ($kill = 0; $kill < 20; $kill++) {
                $before = count($gateway->deliveries());
                $process = $worker();
                for ($n = 0; $n < 1000 && count($gateway->deliveries()) < $before + 1 + ($kill % 9); $n++) {
                    usleep(5_000);
                }
                usleep(mt_rand(0, 6_000));
                proc_terminate($process, SIGKILL);
                proc_close($process);
                // What the lost worker had is another's once its time is over.
                DB::table('outgoing_messages')
                    ->whereNotNull('claimed_until')
                    ->update(['claimed_until' => now()->subMinute()]);
            }
            proc_close($worker());

            $delivered = array_map(fn(string $line): string => explode(' ', $line)[1], $gateway->deliveries());
            $delivered = array_map(fn(string $id): string => strtoupper(explode('@', $id)[0]), $delivered);
            expect(array_unique($delivered))->toHaveCount(count($delivered));
            $by = OutgoingMessage::query()->get()->groupBy(fn(OutgoingMessage $m): string => $m->state->value);
            $sent = $by[MessageState::Sent->value]->pluck('id');
            $doubtful = ($by[MessageState::Doubtful->value] ?? collect())->pluck('id');
            expect($sent->count() + $doubtful->count())
                ->toBe($total)
                ->and($doubtful->count())
                ->toBeLessThanOrEqual(20)
                ->and($sent->diff($delivered)->all())
                ->toBe([])
                ->and(collect($delivered)->diff($sent)->diff($doubtful)->all())
                ->toBe([]);
        } finally {
            $gateway->end();
            ServerTestCase::useDatabase($own);
        }
    },
);
