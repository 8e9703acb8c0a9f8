<?php

declare(strict_types=1);

namespace App\Tools\Commands;

use App\Mailroom\Jobs\HandOver;
use App\Mailroom\Outbox;
use App\Mailroom\Written;
use App\Models\Person;
use App\Models\School;
use App\Tools\Figures;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Process;
use Illuminate\Support\Str;

/**
 * How fast letters are queued and handed to the stand-in for a mail server, beside Python’s smtplib handing the same to
 * it from memory.
 */
final class BenchMailCommand extends Command
{
    protected $signature = 'vantrel:bench-mail {port : of the stand-in’s SMTP server} {--messages=10000}';

    protected $description = 'Measure how fast mail is queued and handed over';

    private const BODY = 400;

    private const PYTHON = <<<'PY'
    import smtplib, sys, time
    from email.message import EmailMessage
    n, port, text = int(sys.argv[1]), int(sys.argv[2]), sys.stdin.read()
    s = smtplib.SMTP('127.0.0.1', port)
    began = time.time()
    for i in range(n):
        m = EmailMessage()
        m['From'], m['To'], m['Subject'] = 'office@lanternfield.example', f'p{i}@shoremail.example', 'Trip'
        m['Message-ID'] = f'<python.{i}@lanternfield.example>'
        m.set_content(text)
        m.add_alternative('<p>' + text + '</p>', subtype='html')
        s.send_message(m)
    print(time.time() - began)
    PY;

    public function handle(Outbox $outbox): int
    {
        $count = (int) $this->option('messages');
        $port = (string) $this->argument('port');
        config(['vantrel.mail.host' => '127.0.0.1', 'vantrel.mail.port' => (int) $port, 'queue.default' => 'null']);
        $school = School::query()->orderBy('id')->firstOrFail();
        $author = Person::query()->where('school_id', $school->id)->firstOrFail();
        $text = str_repeat('On Friday we go to the museum of boats. ', intdiv(self::BODY, 40));
        $letters = [];
        for ($i = 0; $i < $count; $i++) {
            $letters[] = new Written(
                $author->id,
                "Guardian $i",
                'mail',
                "g$i@shoremail.example",
                'en',
                'Trip',
                $text,
                [],
            );
        }
        $began = hrtime(true);
        DB::transaction(
            fn() => $outbox->putMany(
                $school->id,
                (string) Str::ulid(),
                $school->name,
                null,
                now()->format('Y-m-d H:i:s'),
                $letters,
            ),
        );
        $queued = (hrtime(true) - $began) / 1e9;
        $sent = fn(): int => DB::table('outgoing_messages')->where('state', 'sent')->count();
        $began = hrtime(true);
        while ($sent() < $count) {
            HandOver::dispatchSync();
        }
        $handed = (hrtime(true) - $began) / 1e9;
        $python = (float) Process::forever()
            ->input($text)
            ->run(['python3', '-c', self::PYTHON, (string) $count, $port])
            ->throw()
            ->output();
        Figures::note('mail queued', $count / $queued, 'a second', more: true);
        Figures::note('mail handed over, beside smtplib', $handed / $python, 'ratio');
        $row = fn(string $what, float $seconds): array => [
            $what,
            sprintf('%.1f s', $seconds),
            sprintf('%.0f a second', $count / $seconds),
        ];
        $this->table(
            [number_format($count) . ' messages', 'seconds', ''],
            [
                $row('queued', $queued),
                $row('handed over, each marked before and after', $handed),
                $row('handed over by Python’s smtplib, nothing kept', $python),
            ],
        );

        return self::SUCCESS;
    }
}
