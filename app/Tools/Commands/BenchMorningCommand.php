<?php

declare(strict_types=1);

namespace App\Tools\Commands;

use App\Platform\TryCounter;
use App\Tools\BenchList;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;
use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;

/**
 * The first morning of a district, for bin/bench morning: students with cards, in classes of 30 that come in at once by
 * the code on the wall, and coordinators with lists to apply. Some codes let fewer in than come.
 */
final class BenchMorningCommand extends Command
{
    private const CLASS_SIZE = 30;

    /** Of every fifth code. */
    private const CAP = 28;

    private const COORDINATORS = 2;

    private const PASSWORD = 'bench morning lantern';

    protected $signature =
        'vantrel:bench-morning {folder : where what the load needs is written} {--schools=20} ' .
        '{--students=6000 : in classes of 30} {--lists=20 : how many there are for each coordinator} {--rows=2000} ' .
        '{--check : instead say who is in, and whether every cap was kept}';

    protected $description = 'Make the people of a first morning; run by bin/bench on a database of its own';

    public function handle(): int
    {
        if ($this->option('check')) {
            return $this->check();
        }
        if (DB::table('people')->exists()) {
            $this->error('This wants an empty database. Run bin/bench morning.');

            return self::FAILURE;
        }
        $this->call('vantrel:seed', ['which' => 'empty']);
        $schools = $this->schools(max(self::COORDINATORS, (int) $this->option('schools')));
        $classes = $this->classes($schools, intdiv((int) $this->option('students'), self::CLASS_SIZE));
        $folder = (string) $this->argument('folder');
        $this->keep("$folder/morning.json", [
            'classes' => $classes,
            'rows' => (int) $this->option('rows'),
            'coordinators' => $this->coordinators(array_slice($schools, 0, self::COORDINATORS)),
        ]);

        return self::SUCCESS;
    }

    /** @return list<array{string, string}> school and its year */
    private function schools(int $n): array
    {
        $school = (array) DB::table('schools')->first();
        $year = (array) DB::table('school_years')->first();
        $schools = [[(string) $school['id'], (string) $year['id']]];
        for ($i = 1; $i < $n; $i++) {
            $id = (string) Str::ulid();
            DB::table('schools')->insert([...$school, 'id' => $id, 'code' => "bench$i", 'name' => "School $i"]);
            $yearId = (string) Str::ulid();
            DB::table('school_years')->insert([...$year, 'id' => $yearId, 'school_id' => $id]);
            $schools[] = [$id, $yearId];
        }

        return $schools;
    }

    /**
     * @param  list<array{string, string}>  $schools
     * @return list<array{section: string, code: string, cap: int|null, cards: list<string>}>
     */
    private function classes(array $schools, int $n): array
    {
        $book = new CodeBook(new KeyedStream(str_repeat('bench', 7), 'morning'), [], 0, TryCounter::codesADay());
        $classes = [];
        for ($i = 0; $i < $n; $i++) {
            [$school, $year] = $schools[$i % count($schools)];
            $code = $book->draw()->symbols;
            $cap = $i % 5 === 4 ? self::CAP : null;
            $section = (new BenchList())->section($school, $year, $i, $code, $cap);
            $classes[] = ['section' => $section, 'code' => $code, 'cap' => $cap, 'cards' => $this->cards($school, $i)];
        }

        return $classes;
    }

    /** @return list<string> tokens of the cards of a class of students */
    private function cards(string $school, int $class): array
    {
        $made = new BenchList();
        $people = $signIns = $badges = $tokens = [];
        for ($i = 0; $i < self::CLASS_SIZE; $i++) {
            [$people[], $signIns[]] = $pupil = $made->pupil($class * self::CLASS_SIZE + $i, $school);
            $tokens[] = $token = Str::random(43);
            $badges[] = $made->card((string) $pupil[1]['id'], $token);
        }
        DB::table('people')->insert($people);
        DB::table('sign_ins')->insert($signIns);
        DB::table('badges')->insert($badges);

        return $tokens;
    }

    /**
     * @param  list<array{string, string}>  $schools
     * @return list<array{school: string, user: string, password: string, lists: list<string>}>
     */
    private function coordinators(array $schools): array
    {
        $coordinators = [];
        foreach ($schools as $i => [$school]) {
            DB::table('people')->insert([
                'id' => ($person = (string) Str::ulid()),
                'version' => 0,
                'school_id' => $school,
                'kind' => 'staff',
                'given_name' => 'Ines',
                'family_name' => "Halloran $i",
                'search_name' => "ines halloran $i",
                'state' => 'active',
            ]);
            DB::table('sign_ins')->insert([
                'id' => (string) Str::ulid(),
                'version' => 0,
                'person_id' => $person,
                'user_name' => "morning$i",
                'password' => Hash::make(self::PASSWORD),
            ]);
            DB::table('coordinators')->insert([
                'id' => (string) Str::ulid(),
                'version' => 0,
                'person_id' => $person,
                'school_id' => $school,
                'state' => 'active',
            ]);
            $lists = [];
            $rows = (int) $this->option('rows');
            for ($l = 0; $l < (int) $this->option('lists'); $l++) {
                $lists[] = $this->list($i, $l * $rows, $rows);
            }
            $coordinators[] = [
                'school' => $school,
                'user' => "morning$i",
                'password' => self::PASSWORD,
                'lists' => $lists,
            ];
        }

        return $coordinators;
    }

    /** A list as it is pasted from a spreadsheet, of students who are new, each with a guardian. */
    private function list(int $school, int $from, int $rows): string
    {
        // Names of one school are not those of another: two lists at a time would wait for each other's user names.
        $ends = ['or', 'ul'][$school];
        $lines = ["Student no\tGiven name\tFamily name\tDate of birth\tGrade\tHomeroom\tGuardian\tGuardian e-mail"];
        for ($n = $from; $n < $from + $rows; $n++) {
            [$given, $family] = [$this->name($n), $this->name($n * 31 + 7) . $ends];
            $lines[] = implode("\t", [
                1_000_000 * ($school + 1) + $n,
                $given,
                $family,
                sprintf('%04d-%02d-%02d', 2010 + ($n % 10), 1 + ($n % 12), 1 + ($n % 28)),
                1 + ($n % 12),
                'Room ' . $n % 60,
                $this->name($n * 17 + 3) . " $family",
                "g$school.$n@shoremail.example",
            ]);
        }

        return implode("\n", $lines);
    }

    private function name(int $n): string
    {
        $parts = ['ba', 'ko', 'mi', 'ra', 'te', 'no', 'li', 'sa', 'vu', 'do', 'he', 'ja', 'pe', 'ru'];
        $hash = crc32((string) $n);

        return ucfirst(
            implode('', array_map(fn(int $i): string => $parts[($hash >> ($i * 6)) % count($parts)], [0, 1, 2, 3])),
        );
    }

    /** Who is in, beside whom each code should have let in. */
    private function check(): int
    {
        $rows = DB::table('join_codes as c')
            ->where('c.state', 'open')
            ->select('c.cap')
            ->selectSub(
                DB::table('enrollments as e')->whereColumn('e.join_code_id', 'c.id')->selectRaw('COUNT(*)'),
                'n',
            )
            ->get();
        $wrong = $rows->filter(
            fn(object $c): bool => (int) $c->n !== min(self::CLASS_SIZE, $c->cap ?? self::CLASS_SIZE),
        );
        $this->line(
            sprintf(
                '%d came in by %d codes, %d of them with a cap; %d codes let in more or fewer than they should.',
                $rows->sum('n'),
                $rows->count(),
                $rows->whereNotNull('cap')->count(),
                $wrong->count(),
            ),
        );

        return $wrong->isEmpty() ? self::SUCCESS : self::FAILURE;
    }

    /** @param  array<string, mixed>  $what */
    private function keep(string $file, array $what): void
    {
        file_put_contents($file, json_encode($what, JSON_THROW_ON_ERROR));
    }
}
