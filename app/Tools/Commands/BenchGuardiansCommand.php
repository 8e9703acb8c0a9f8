<?php

declare(strict_types=1);

namespace App\Tools\Commands;

use App\Guardians\GuardianList;
use App\Guardians\GuardianWhom;
use App\Guardians\InviteDesk;
use App\Guardians\Standing;
use App\Models\InviteRun;
use App\Models\Person;
use App\Models\PrintState;
use App\Models\School;
use App\Models\SchoolYear;
use App\OneRoster\Source;
use App\Roll\SearchIndex;
use App\Tools\BigSchool;
use App\Tools\Figures;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Process;
use Vantrel\Core\OneRoster\Kind;
use Vantrel\Core\OneRoster\Query;
use Vantrel\Core\OneRoster\Scope;

final class BenchGuardiansCommand extends Command
{
    protected $signature = 'vantrel:bench-guardians {--people=100000} {--pages=1000}';

    protected $description = 'Measure invitations and the OneRoster service at size; run by bin/bench guardians';

    public function handle(GuardianList $list, InviteDesk $desk): int
    {
        if (DB::table('people')->exists()) {
            $this->error('This wants an empty database. Run bin/bench guardians.');

            return self::FAILURE;
        }
        $this->callSilent('vantrel:seed', ['which' => 'empty']);
        $school = School::query()->orderBy('id')->firstOrFail();
        $year = SchoolYear::query()->where('school_id', $school->id)->firstOrFail();
        (new BigSchool($school, $year->id, 20_261_127))->fill((int) $this->option('people'), 3000, 0);
        $this->line('The search index is made…');
        app(SearchIndex::class)->all();
        $actor = Person::query()->where('school_id', $school->id)->where('kind', 'staff')->firstOrFail();
        DB::statement('ANALYZE TABLE people, guardianships, sections, enrollments, sign_ins');
        $this->line(number_format(DB::table('people')->count()) . ' people.');
        $this->table(['the guardians of a school', 'p95 of 20'], $this->lists($school, $list));
        $this->table(['users of the OneRoster service', 'seconds', 'of the bare query'], $this->pages($school));
        $this->invite($school, $desk, $actor);

        return self::SUCCESS;
    }

    /** @return list<list<string>> */
    private function lists(School $school, GuardianList $list): array
    {
        $rows = [];
        foreach (
            [
                'counts of all' => fn() => $list->counts($school),
                'first page' => fn() => $list->page($school, new GuardianWhom()),
                'second page' => fn() => $list->page($school, new GuardianWhom(), 100),
                'by a part of a name' => fn() => $list->page($school, new GuardianWhom(q: 'mar')),
                'those awaiting' => fn() => $list->page($school, new GuardianWhom(standing: Standing::Awaiting)),
            ]
            as $what => $do
        ) {
            $times = [];
            for ($i = 0; $i < 20; $i++) {
                $began = hrtime(true);
                $do();
                $times[] = (hrtime(true) - $began) / 1e6;
            }
            sort($times);
            Figures::note("guardians, $what, p95", $times[18], 'ms', 150);
            $rows[] = [$what, sprintf('%.0f ms', $times[18])];
        }

        return $rows;
    }

    /**
     * All users, page by page as JSON; beside the same rows by a bare query, fetched page by page as they stand.
     *
     * @return list<list<string>>
     */
    private function pages(School $school): array
    {
        $size = (int) $this->option('pages');
        $base = 'https://rosters.example/ims/oneroster/rostering/v1p2';
        $source = new Source($school, [Scope::Roster], $base, 'bench');
        $bare = hrtime(true);
        $count = 0;
        do {
            $rows = DB::select(
                "SELECT p.* FROM people p WHERE p.school_id = ? ORDER BY p.id LIMIT $size OFFSET $count",
                [$school->id],
            );
            $count += count($rows);
            strlen(json_encode($rows, JSON_THROW_ON_ERROR));
        } while (count($rows) === $size);
        $bare = (hrtime(true) - $bare) / 1e9;
        $began = hrtime(true);
        $users = 0;
        do {
            [$page] = $source->page(Kind::Users, [], new Query($size, $users, null, false, null, []));
            $users += count($page);
            strlen(json_encode(['users' => $page], JSON_THROW_ON_ERROR));
        } while (count($page) === $size);
        $seconds = (hrtime(true) - $began) / 1e9;

        Figures::note('users of the OneRoster service, beside the bare query', $seconds / $bare, 'ratio');

        return [
            ['the bare query, ' . number_format($count) . ' rows', sprintf('%.2f', $bare), ''],
            [
                'the service, ' . number_format($users) . ' users',
                sprintf('%.2f', $seconds),
                sprintf('%.2f times', $seconds / $bare),
            ],
        ];
    }

    /** By a worker of its own, which is killed half-way; the next one goes on. */
    private function invite(School $school, InviteDesk $desk, Person $actor): void
    {
        config(['queue.default' => 'database']);
        $run = $desk->begin($school, new GuardianWhom(standing: Standing::Listed), $actor);
        $mails = fn(): int => DB::table('outgoing_messages')->count();
        $work = fn() => Process::forever()
            ->env(['QUEUE_CONNECTION' => 'database', 'DB_QUEUE_RETRY_AFTER' => '1'])
            ->path(base_path())
            ->start([PHP_BINARY, 'artisan', 'queue:work', '--stop-when-empty', '--tries=9', '--timeout=900']);
        $began = hrtime(true);
        $seconds = fn(): float => (hrtime(true) - $began) / 1e9;
        $first = $work();
        while ($first->running() && $mails() < $run->total / 3) {
            usleep(50_000);
        }
        $first->signal(9);
        $at = $mails();
        $killed = $seconds();
        while (InviteRun::query()->findOrFail($run->id)->state !== PrintState::Done && $seconds() < 1200) {
            $work()->wait();
        }
        $run = InviteRun::query()->findOrFail($run->id);
        $this->line(
            sprintf(
                '%s guardians invited as a job: killed after %.0f s and %s mails, done after %.0f s; %s mails to %s addresses.',
                number_format($run->total),
                $killed,
                number_format($at),
                $seconds(),
                number_format($mails()),
                number_format(DB::table('outgoing_messages')->distinct()->count('to_address')),
            ),
        );
    }
}
