<?php

declare(strict_types=1);

namespace App\Tools;

use App\Models\School;
use Database\Seeders\DemoNames;
use Illuminate\Support\Facades\DB;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Vantrel\Core\Names\NameKey;

/** Fills an empty school with made-up people, sections and a long ledger, for measuring; the same of one seed. */
final class BigSchool
{
    private const CHUNK = 1000;

    private const CHANGES_OF_AN_ENTRY = 100;

    private Randomizer $random;

    /** @var list<string> commonest first */
    private array $given;

    /** @var list<string> commonest first */
    private array $family;

    private int $made = 0;

    /** @var list<string> */
    private array $sections = [];

    public function __construct(private readonly School $school, private readonly string $yearId, int $seed)
    {
        $this->random = new Randomizer(new Mt19937($seed));
        $this->given = [...$this->random->shuffleArray(DemoNames::GIVEN), ...$this->invented(900)];
        $this->family = [...$this->random->shuffleArray(DemoNames::FAMILY), ...$this->invented(6000)];
    }

    /** @param  int  $people of whom half are students, and one in 25 is staff */
    public function fill(int $people, int $sections, int $changes): void
    {
        $this->sections = $this->sections($sections);
        $staff = intdiv($people, 25);
        $students = intdiv($people, 2);
        $all = [...$this->people('student', $students), ...$this->people('guardian', $people - $students - $staff)];
        $this->people('staff', $staff);
        $this->around(array_slice($all, 0, $students), array_slice($all, $students));
        $this->ledger($all, $changes);
    }

    private function id(): string
    {
        return sprintf('01K3CNQ%019d', ++$this->made);
    }

    /** @return list<string> names of two or three syllables and an end */
    private function invented(int $n): array
    {
        $parts = [
            'Ba',
            'Ce',
            'Dor',
            'El',
            'Fin',
            'Gra',
            'Hal',
            'Jo',
            'Kar',
            'Lem',
            'Mo',
            'Nel',
            'Os',
            'Pet',
            'Ros',
            'Ul',
        ];
        $ends = ['son', 'ez', 'enko', 'ski', 'er', 'wright', 'a', 'ini', 'oglu', 'well', 'ström', 'in', 'ette', 'ian'];
        $names = [];
        while (count($names) < $n) {
            $name =
                $this->one($parts) .
                ($this->random->getInt(0, 2) > 0 ? strtolower($this->one($parts)) : '') .
                strtolower($this->one($parts)) .
                $this->one($ends);
            $names[$name] = true;
        }

        return array_keys($names);
    }

    /**
     * @param  list<string>  $of
     */
    private function one(array $of): string
    {
        return $of[$this->random->getInt(0, count($of) - 1)];
    }

    /**
     * A few are common, many are rare.
     *
     * @param  list<string>  $of
     */
    private function common(array $of): string
    {
        return $of[(int) (($this->random->getInt(0, 999_999) / 1_000_000) ** 2.2 * count($of))];
    }

    /** @return list<string> */
    private function sections(int $n): array
    {
        $rows = [];
        for ($i = 0; $i < $n; $i++) {
            $rows[] = [
                'id' => $this->id(),
                'version' => 0,
                'school_id' => $this->school->id,
                'school_year_id' => $this->yearId,
                'name' => sprintf('Section %04d', $i),
                'kind' => $i % 4 === 0 ? 'homeroom' : 'class',
                'grade' => sprintf('%02d', ($i % 12) + 1),
                'state' => 'open',
            ];
        }
        $this->insert('sections', $rows);

        return array_column($rows, 'id');
    }

    /** @return list<string> ids */
    private function people(string $kind, int $n): array
    {
        $people = [];
        for ($i = 0; $i < $n; $i++) {
            $given = $this->common($this->given);
            $family = $this->common($this->family);
            $grade = $this->random->getInt(1, 12);
            $child = $kind === 'student';
            $mail = str_replace(' ', '.', NameKey::of("$given $family")) . $i;
            $people[] = [
                'id' => $this->id(),
                'version' => 0,
                'school_id' => $this->school->id,
                'kind' => $kind,
                'given_name' => $given,
                'family_name' => $family,
                'search_name' => NameKey::of("$given $family"),
                'birth_date' =>
                    $child && $i % 40 !== 0
                        ? sprintf(
                            '%04d-%02d-%02d',
                            2021 - $grade,
                            $this->random->getInt(1, 12),
                            $this->random->getInt(1, 28),
                        )
                        : null,
                'number' => $child && $i % 25 !== 0 ? sprintf('%06d', 120_000 + $i) : null,
                'grade' => $child ? sprintf('%02d', $grade) : null,
                'email' =>
                    $child && $i % 3 !== 0 ? null : "$mail@" . ($i % 50 === 0 ? 'shore' : 'lantern') . '.example',
                'email_state' => 'claimed',
                'phone' => $kind === 'guardian' ? sprintf('+1202555%04d', $i % 10_000) : null,
                'state' => $child && $i % 30 === 7 ? 'left' : 'active',
            ];
        }
        $this->insert('people', $people);

        return array_column($people, 'id');
    }

    /**
     * @param  list<string>  $students
     * @param  list<string>  $guardians
     */
    private function around(array $students, array $guardians): void
    {
        $enrollments = $signIns = $badges = $links = [];
        foreach ($students as $i => $student) {
            for ($n = $i % 17 === 0 ? 0 : 3; $n > 0; $n--) {
                $enrollments[] = [
                    'id' => $this->id(),
                    'version' => 0,
                    'section_id' => $this->sections[($i * 3 + $n * 7) % count($this->sections)],
                    'person_id' => $student,
                    'role' => 'student',
                    'begins_on' => '2026-08-20',
                    'ends_on' => null,
                    'source' => 'list',
                ];
            }
            $signIns[] = [
                'id' => ($signIn = $this->id()),
                'version' => 0,
                'person_id' => $student,
                'user_name' => "student.$i",
                'last_signed_in_at' => $i % 5 === 0 ? null : '2026-09-01 08:00:00',
            ];
            if ($i % 7 !== 0) {
                $badges[] = [
                    'id' => $this->id(),
                    'version' => 0,
                    'sign_in_id' => $signIn,
                    'token_hash' => hash('sha256', "badge $i"),
                    'state' => $i % 31 === 0 ? 'lost' : 'live',
                    'made_at' => '2026-08-20 08:00:00',
                ];
            }
            if ($i % 9 !== 0) {
                $links[] = [
                    'id' => $this->id(),
                    'version' => 0,
                    'student_id' => $student,
                    'guardian_id' => $guardians[$i % count($guardians)],
                    'state' => $i % 2 === 0 ? 'listed' : 'connected',
                ];
            }
        }
        $this->insert('enrollments', $enrollments);
        $this->insert('sign_ins', $signIns);
        $this->insert('badges', $badges);
        $this->insert('guardianships', $links);
    }

    /** @param  list<string>  $people */
    private function ledger(array $people, int $changes): void
    {
        $entries = intdiv($changes, self::CHANGES_OF_AN_ENTRY);
        for ($n = 0; $n < $entries; $n++) {
            $seq = DB::table('ledger_entries')->insertGetId(
                [
                    'id' => $this->id(),
                    'school_id' => $this->school->id,
                    'action' => 'intake',
                    'title' => "List $n",
                    'sentence' => 'Writes what a list says.',
                    'tallies' => '[]',
                    'changes_count' => self::CHANGES_OF_AN_ENTRY,
                    'made_at' => date('Y-m-d H:i:s', 1_750_000_000 + $n * 3600),
                ],
                'seq',
            );
            DB::table('ledger_schools')->insert(['school_id' => $this->school->id, 'entry_seq' => $seq]);
            $rows = [];
            for ($i = 0; $i < self::CHANGES_OF_AN_ENTRY; $i++) {
                $rows[] = [
                    'entry_seq' => $seq,
                    'entity' => 'people',
                    'row_id' => $people[($n * self::CHANGES_OF_AN_ENTRY + $i) % count($people)],
                    'was_version' => 0,
                    'before' => '{"grade":"03"}',
                    'after' => '{"grade":"04"}',
                    'reason' => 'as the list says',
                ];
            }
            DB::table('ledger_changes')->insert($rows);
        }
    }

    /** @param  list<array<string, mixed>>  $rows */
    private function insert(string $table, array $rows): void
    {
        foreach (array_chunk($rows, self::CHUNK) as $some) {
            DB::table($table)->insert($some);
        }
    }
}
