<?php

declare(strict_types=1);

namespace Database\Seeders;

use App\Platform\PlannerKit;
use App\Platform\TryCounter;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Vantrel\Core\Accounts\PassphraseSheet;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Values\GradeLevel;

/**
 * Lanternfield Area Schools: an invented coastal district, the same on every machine save for its secrets. All people,
 * schools and places are made up; addresses are under .example (RFC 2606), phone numbers from 555-0100 to 555-0199, the
 * range kept for fiction.
 */
final class DemoDistrict
{
    use DemoCases;
    use DemoNotices;
    use DemoRows;

    public const STAFF_PASSWORD = 'lantern harbor morning';

    private const TODAY = '2026-08-24';

    private const SCHOOLS = [
        'primary' => ['Lanternfield Primary', 0, 5, 480],
        'middle' => ['Copperbrook Middle', 6, 8, 330],
        'upper' => ['Highmoor Upper', 9, 12, 430],
    ];

    private Randomizer $random;

    private Ids $ids;

    private UserNames $userNames;

    private PassphraseSheet $phrases;

    private CodeBook $codes;

    /** @var array<string, list<array<string, mixed>>> */
    private array $rows = [];

    /** @var array<string, array<string, mixed>> students by key, for the planted cases */
    private array $students = [];

    /** @var list<array<string, string>> guardians that a brother or sister may share */
    private array $families = [];

    private int $number = 20_001;

    private int $guardians = 0;

    private string $staffHash = '';

    /** @var array<string, list<string>> school to staff ids */
    private array $staff = [];

    /** @var array<string, array<string, string>> school to section name to id */
    private array $sections = [];

    public function __construct(private readonly PlannerKit $kit) {}

    public function run(): void
    {
        $this->random = new Randomizer(new Mt19937(20260824));
        $this->ids = new Ids('01K3CNQ0000000000000000000');
        $unfit = array_values(array_filter(array_map(trim(...), file(resource_path('words/unfit.txt')) ?: [])));
        $this->userNames = new UserNames([], $unfit);
        $this->phrases = $this->kit->passphrases('demo');
        $this->codes = new CodeBook(new KeyedStream(str_repeat('demo', 8), 'codes'), [], 140, TryCounter::codesADay());
        $this->staffHash = Hash::make(self::STAFF_PASSWORD);
        foreach (array_keys(self::SCHOOLS) as $key) {
            $this->school($key);
        }
        $this->planted();
        $this->notices();
        $this->invitedByMail();
        DB::transaction(function (): void {
            foreach (
                [
                    'schools',
                    'school_years',
                    'people',
                    'coordinators',
                    'sign_ins',
                    'badges',
                    'sections',
                    'enrollments',
                    'join_codes',
                    'invitations',
                    'join_requests',
                    'guardianships',
                    'outgoing_messages',
                    'notices',
                    'work_results',
                ]
                as $table
            ) {
                foreach (array_chunk($this->rows[$table] ?? [], 400) as $chunk) {
                    DB::table($table)->insert($chunk);
                }
            }
        });
    }

    private function school(string $key): void
    {
        [$name, $low, $high, $students] = self::SCHOOLS[$key];
        $school = $this->ids->for('school', $key);
        $this->add('schools', [
            'id' => $school,
            'code' => $key,
            'name' => $name,
            'lowest_grade' => $low,
            'highest_grade' => $high,
            'mail_domains' => '["lanternfield.example"]',
            'time_zone' => 'America/New_York',
            'country' => 'US',
            'sign_in_policy' => [
                'primary' => '0:2 card, 3:5 passphrase',
                'middle' => '6:8 passphrase',
                'upper' => '9:12 own',
            ][$key],
            'stay_days_own' => 30,
        ]);
        $year = $this->ids->for('year', $key);
        $this->add('school_years', [
            'id' => $year,
            'version' => 0,
            'school_id' => $school,
            'name' => '2026-27',
            'begins_on' => '2026-08-24',
            'ends_on' => '2027-06-12',
            'state' => 'current',
        ]);
        $this->staffOf($key, $school);
        $homerooms = [];
        for ($grade = $low; $grade <= $high; $grade++) {
            foreach (DemoNames::BIRDS as $bird) {
                $label = GradeLevel::of($grade)->short() . " $bird";
                $homerooms[$grade][] = $this->section($key, $school, $year, $label, 'homeroom', $grade);
            }
        }
        $classes = $this->classes($key, $school, $year, $low, $high);
        $perGrade = intdiv($students, $high - $low + 1);
        $extra = $students - $perGrade * ($high - $low + 1);
        for ($grade = $low; $grade <= $high; $grade++) {
            for ($i = 0; $i < $perGrade + ($grade - $low < $extra ? 1 : 0); $i++) {
                $student = $this->student($key, $school, $grade, $i);
                $this->enroll($homerooms[$grade][$i % 4], $student['id'], 'student');
                foreach ($classes[$grade] ?? [] as $c => $section) {
                    if (($i + $c) % 3 !== 0) {
                        $this->enroll($section, $student['id'], 'student');
                    }
                }
            }
        }
    }

    private function staffOf(string $key, string $school): void
    {
        $named = match ($key) {
            'primary' => [
                ['Ines', 'Halloran'],
                ['Petra', 'Okonjo'],
                ['Marten', 'Vale'],
                ['Odile', 'Kerr'],
                ['Ruben', 'Aske'],
            ],
            'middle' => [['Saskia', 'Thorne'], ['Elias', 'Marrow']],
            default => [['Colm', 'Bexley'], ['Yuki', 'Harada']],
        };
        $count = ['primary' => 34, 'middle' => 24, 'upper' => 28][$key];
        for ($i = 0; $i < $count; $i++) {
            [$given, $family] = $named[$i] ?? [$this->pick(DemoNames::GIVEN), $this->pick(DemoNames::FAMILY)];
            $id = $this->ids->for('staff', $key, (string) $i);
            $user = $this->userNames->give($given, $family) . '@lanternfield.example';
            $this->person($id, $school, 'staff', $given, $family, [
                'email' => $user,
                'email_state' => 'confirmed',
                'email_by' => 'school',
            ]);
            $this->add('sign_ins', [
                'id' => $this->ids->for('sign-in', $id),
                'version' => 0,
                'person_id' => $id,
                'user_name' => $user,
                'passphrase' => null,
                'password' => $i < 5 ? $this->staffHash : null,
                'last_signed_in_at' => $i < 5 ? '2026-08-21 14:00:00' : null,
            ]);
            $this->staff[$key][] = $id;
        }
        // Ines Halloran coordinates the district, the first of each other school that school.
        $coordinator = $this->ids->for('staff', 'primary', '0');
        $this->add('coordinators', [
            'id' => $this->ids->for('coordinator', $coordinator, $school),
            'person_id' => $coordinator,
            'school_id' => $school,
        ]);
        if ($key !== 'primary') {
            $this->add('coordinators', [
                'id' => $this->ids->for('coordinator', $this->staff[$key][0], $school),
                'person_id' => $this->staff[$key][0],
                'school_id' => $school,
            ]);
        }
    }

    private function section(
        string $key,
        string $school,
        string $year,
        string $name,
        string $kind,
        ?int $grade,
        ?string $period = null,
    ): string {
        $id = $this->ids->for('section', $key, $name);
        $this->sections[$key][$name] = $id;
        $this->add('sections', [
            'id' => $id,
            'version' => 0,
            'school_id' => $school,
            'school_year_id' => $year,
            'name' => $name,
            'kind' => $kind,
            'grade' => $grade === null ? null : GradeLevel::of($grade)->code(),
            'period' => $period,
            'seats' => $kind === 'homeroom' ? 28 : null,
            'state' => 'open',
            'archived_on' => null,
            'carried_from' => null,
        ]);
        $n = count($this->sections[$key]);
        // The last section of each school has nobody to lead it.
        if ($n !== 21) {
            // Petra Okonjo leads 3 Heron, so that the sign-ins printed at the start show something.
            $lead =
                $name === '3 Heron' && $key === 'primary'
                    ? $this->staff[$key][1]
                    : $this->staff[$key][2 + ($n % (count($this->staff[$key]) - 2))];
            $this->enroll($id, $lead, 'lead');
        }
        if ($name === '3 Heron' && $key === 'primary') {
            $this->enroll($id, $this->staff[$key][3], 'assistant');
        }
        $code = $this->codes->draw();
        $this->add('join_codes', [
            'id' => $this->ids->for('code', $id),
            'version' => 0,
            'section_id' => $id,
            'code' => $code->symbols,
            'state' => 'open',
            'opened_at' => '2026-08-20 13:00:00',
            'closed_at' => null,
        ]);

        return $id;
    }

    /** @return array<int, list<string>> sections by grade */
    private function classes(string $key, string $school, string $year, int $low, int $high): array
    {
        $classes = [];
        if ($key === 'primary') {
            foreach (['Music', 'Library', 'Art'] as $p => $subject) {
                for ($grade = 0; $grade <= 5; $grade++) {
                    $classes[$grade][] = $this->section(
                        $key,
                        $school,
                        $year,
                        "$subject " . GradeLevel::of($grade)->short(),
                        'class',
                        $grade,
                        (string) (2 * $p + 2),
                    );
                }
            }
            $this->section($key, $school, $year, 'Reading support', 'class', null, '2');
            $this->section($key, $school, $year, 'Harbor choir', 'class', null, '7');

            return $classes;
        }
        $subjects = $key === 'middle' ? 5 : 6;
        for ($grade = $low; $grade <= $high; $grade++) {
            for ($s = 0; $s < $subjects; $s++) {
                foreach (['A', 'B'] as $group) {
                    if ($key === 'upper' && $group === 'B' && $s % 2 === 0) {
                        continue;
                    }
                    $classes[$grade][] = $this->section(
                        $key,
                        $school,
                        $year,
                        DemoNames::SUBJECTS[($s + $grade) % 12] . " $grade$group",
                        'class',
                        $grade,
                        (string) (1 + count($classes[$grade] ?? [])),
                    );
                }
            }
        }

        return $classes;
    }

    /** @return array<string, mixed> */
    private function student(string $key, string $school, int $grade, int $i): array
    {
        $sibling = $this->families !== [] && $this->random->getInt(1, 100) <= 16;
        $family = $sibling
            ? $this->families[$this->random->getInt(0, count($this->families) - 1)]
            : ['family' => $this->pick(DemoNames::FAMILY), 'a' => '', 'b' => ''];
        $given = $this->pick(DemoNames::GIVEN);
        if ($this->random->getInt(1, 100) <= 18) {
            $given .= ' ' . $this->pick(DemoNames::GIVEN);
        }
        $born = sprintf(
            '%04d-%02d-%02d',
            2026 - 5 - $grade - ($this->random->getInt(0, 11) > 8 ? 1 : 0),
            $this->random->getInt(1, 12),
            $this->random->getInt(1, 28),
        );
        $id = $this->ids->for('student', $key, "$grade.$i");
        $student = [
            'id' => $id,
            'school' => $school,
            'given' => $given,
            'family' => $family['family'],
            'grade' => $grade,
            'born' => $born,
        ];
        $this->person($id, $school, 'student', $given, $family['family'], [
            'birth_date' => $born,
            'number' => sprintf('%06d', $this->number++),
            'grade' => GradeLevel::of($grade)->code(),
        ]);
        $opened = count($this->students) % 44 !== 7;
        $carded = $opened || count($this->students) % 2 === 0;
        $this->signIn($id, $given, $family['family'], $carded, $opened);
        if (!$sibling) {
            $family['a'] = $this->guardian($school, $family['family'], true);
            $family['b'] =
                $this->random->getInt(1, 100) <= 78
                    ? $this->guardian(
                        $school,
                        $this->random->getInt(1, 4) === 1 ? $this->pick(DemoNames::FAMILY) : $family['family'],
                        false,
                    )
                    : '';
            $this->families[] = $family;
        }
        foreach (['a', 'b'] as $which) {
            if ($family[$which] !== '' && count($this->students) % 97 !== 40) {
                $this->link($id, $family[$which], count($this->students) % 5 === 0 ? 'connected' : 'listed');
            }
        }

        return $this->students["$key.$grade.$i"] = $student;
    }
}
