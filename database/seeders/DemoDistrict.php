<?php

declare(strict_types=1);

namespace Database\Seeders;

use App\Platform\CoreKit;
use App\Platform\Tries;
use DateTimeImmutable;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Uid\Ulid;
use Vantrel\Core\Accounts\PassphraseSheet;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Values\GradeLevel;

/**
 * Lanternfield Area Schools: an invented coastal district, the same on every machine save for its secrets. All people,
 * schools and places are made up; addresses are under .example (RFC 2606), phone numbers from 555-0100 to 555-0199, the
 * range kept for fiction.
 */
final class DemoDistrict
{
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

    public function __construct(private readonly CoreKit $kit) {}

    public function run(): void
    {
        $this->random = new Randomizer(new Mt19937(20260824));
        $this->ids = new Ids('01K3CNQ0000000000000000000');
        $unfit = array_values(array_filter(array_map(trim(...), file(resource_path('words/unfit.txt')) ?: [])));
        $this->userNames = new UserNames([], $unfit);
        $this->phrases = $this->kit->passphrases('demo');
        $this->codes = new CodeBook(new KeyedStream(str_repeat('demo', 8), 'codes'), [], 140, Tries::codesADay());
        $this->staffHash = Hash::make(self::STAFF_PASSWORD);
        foreach (array_keys(self::SCHOOLS) as $key) {
            $this->school($key);
        }
        $this->planted();
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

    private function signIn(string $personId, string $given, string $family, bool $carded, bool $opened): void
    {
        $id = $this->ids->for('sign-in', $personId);
        $this->add('sign_ins', [
            'id' => $id,
            'version' => 0,
            'person_id' => $personId,
            'user_name' => $this->userNames->give($given, $family),
            'passphrase' => $carded ? Crypt::encryptString($this->phrases->draw()) : null,
            'password' => null,
            'last_signed_in_at' => $opened
                ? '2026-08-' . $this->random->getInt(18, 21) . ' 13:' . $this->random->getInt(10, 59) . ':00'
                : null,
        ]);
        if ($carded) {
            $token = Token::draw($this->kit->random("demo badge $id"));
            $this->add('badges', [
                'id' => $this->ids->for('badge', $id),
                'version' => 0,
                'sign_in_id' => $id,
                'token_hash' => $token->hash(),
                'state' => 'live',
                'made_at' => '2026-08-17 15:00:00',
                'ended_at' => null,
            ]);
        }
    }

    private function guardian(string $school, string $family, bool $reachable): string
    {
        $n = ++$this->guardians;
        $id = $this->ids->for('guardian', (string) $n);
        $given = $this->pick(DemoNames::GIVEN);
        $address =
            str_replace(' ', '.', NameKey::of("$given $family")) .
            $n .
            '@' .
            ['shoremail', 'harborpost', 'tidewire'][$n % 3] .
            '.example';
        $this->person($id, $school, 'guardian', $given, $family, [
            'email' => $reachable || $n % 2 === 0 ? $address : null,
            'phone' => $n % 100 < 70 ? sprintf('+1202555%04d', 100 + ($n % 100)) : null,
        ]);

        return $id;
    }

    private function link(string $student, string $guardian, string $state): void
    {
        $this->add('guardianships', [
            'id' => $this->ids->for('guardianship', $student, $guardian),
            'version' => 0,
            'student_id' => $student,
            'guardian_id' => $guardian,
            'relationship' => null,
            'state' => $state,
            'restriction' => null,
        ]);
    }

    /** @param  array<string, string|null>  $more */
    private function person(string $id, string $school, string $kind, string $given, string $family, array $more): void
    {
        $this->add('people', [
            'id' => $id,
            'version' => 0,
            'school_id' => $school,
            'kind' => $kind,
            'given_name' => $given,
            'family_name' => $family,
            'search_name' => NameKey::of("$given $family"),
            'birth_date' => null,
            'number' => null,
            'grade' => null,
            'email' => null,
            'email_state' => 'claimed',
            'email_by' => isset($more['email']) ? 'list' : null,
            'email_at' => isset($more['email']) ? self::TODAY . ' 08:00:00' : null,
            'phone' => null,
            'state' => 'active',
            'merged_into' => null,
            ...$more,
        ]);
    }

    private function enroll(string $section, string $person, string $role, string $source = 'list'): void
    {
        $this->add('enrollments', [
            'id' => $this->ids->for('enrollment', $section, $person),
            'version' => 0,
            'section_id' => $section,
            'person_id' => $person,
            'role' => $role,
            'begins_on' => self::TODAY,
            'ends_on' => null,
            'source' => $source,
        ]);
    }

    /** What a coordinator finds on an ordinary day in August. */
    private function planted(): void
    {
        $this->doubles();
        $this->twinsAndNamesakes();
        $this->unplaced();
        $this->invitations();
        $this->newcomers();
        // A guardian who can sign in, connected to two children.
        $guardian = $this->ids->for('guardian', 'demo');
        $school = $this->ids->for('school', 'primary');
        $this->person($guardian, $school, 'guardian', 'Hélène', 'Marchetti', [
            'email' => 'helene.marchetti@shoremail.example',
            'email_state' => 'confirmed',
            'email_by' => 'mail',
            'phone' => '+12025550142',
        ]);
        $this->add('sign_ins', [
            'id' => $this->ids->for('sign-in', $guardian),
            'version' => 0,
            'person_id' => $guardian,
            'user_name' => 'helene.marchetti@shoremail.example',
            'passphrase' => null,
            'password' => $this->staffHash,
            'last_signed_in_at' => null,
        ]);
        $this->link($this->students['primary.3.0']['id'], $guardian, 'connected');
        $this->link($this->students['primary.1.4']['id'], $guardian, 'connected');
        // One student whose passphrase is printed with the demo sign-ins.
        $student = $this->ids->for('student', 'demo');
        $this->person($student, $school, 'student', 'Wilhelmina', 'Seabright', [
            'birth_date' => '2018-02-11',
            'number' => '019001',
            'grade' => '03',
        ]);
        $signIn = $this->ids->for('sign-in', $student);
        $this->add('sign_ins', [
            'id' => $signIn,
            'version' => 0,
            'person_id' => $student,
            'user_name' => 'wilhelmina.seabright',
            'passphrase' => Crypt::encryptString('maple otter candy'),
            'password' => null,
            'last_signed_in_at' => '2026-08-21 13:30:00',
        ]);
        $this->enroll($this->sections['primary']['3 Heron'], $student, 'student');
        $this->link($student, $guardian, 'connected');
    }

    /** 23 pairs of accounts of one child, of every kind. */
    private function doubles(): void
    {
        $n = 0;
        foreach (['primary' => 12, 'middle' => 6, 'upper' => 5] as $key => $count) {
            for ($i = 0; $i < $count; $i++, $n++) {
                [, $low, $high] = self::SCHOOLS[$key];
                $grade = $low + ($i % max(1, $high - $low + 1));
                $of = $this->students["$key.$grade." . (20 + $i)];
                [$given, $family, $born] = match ($n % 4) {
                    // Registered by themselves: the name as it is, nothing else.
                    0 => [$of['given'], $of['family'], null],
                    // Day and month turned on the form.
                    1 => [
                        $of['given'],
                        $of['family'],
                        substr($of['born'], 0, 5) . substr($of['born'], 8, 2) . '-' . substr($of['born'], 5, 2),
                    ],
                    // Typed without accents and hyphens, in another case.
                    2 => [$this->plain($of['given']), $this->plain($of['family']), $of['born']],
                    // Given and family name in each other's place.
                    default => [$of['family'], $of['given'], $of['born']],
                };
                if (
                    $born !== null &&
                    !checkdate((int) substr($born, 5, 2), (int) substr($born, 8, 2), (int) substr($born, 0, 4))
                ) {
                    $born = $of['born'];
                }
                $id = $this->ids->for('double', (string) $n);
                $this->person($id, $of['school'], 'student', $given, $family, [
                    'birth_date' => $born,
                    'grade' => GradeLevel::of($grade)->code(),
                ]);
                $this->signIn($id, $given, $family, false, true);
                $names = array_values($this->sections[$key]);
                $this->enroll($names[count($names) - 1 - ($i % 3)], $id, 'student', 'code');
            }
        }
    }

    /** 9 pairs that are alike and are two children: 5 pairs of twins, 4 of namesakes. */
    private function twinsAndNamesakes(): void
    {
        for ($i = 0; $i < 9; $i++) {
            $grade = $i % 6;
            $of = $this->students["primary.$grade." . (50 + $i)];
            $twin = $i < 5;
            $id = $this->ids->for('alike', (string) $i);
            $given = $twin ? DemoNames::GIVEN[($i * 7 + 3) % 100] : $of['given'];
            $born = $twin
                ? $of['born']
                : substr($of['born'], 0, 4) .
                    '-' .
                    ($of['born'] > substr($of['born'], 0, 4) . '-06' ? '02-14' : '11-03');
            $this->person($id, $of['school'], 'student', $given, $of['family'], [
                'birth_date' => $born,
                'number' => sprintf('%06d', $this->number++),
                'grade' => GradeLevel::of($grade)->code(),
            ]);
            $this->signIn($id, $given, $of['family'], true, true);
            $this->enroll(
                $this->sections['primary'][GradeLevel::of($grade)->short() . ' ' . DemoNames::BIRDS[($i + 1) % 4]],
                $id,
                'student',
            );
        }
    }

    /** 9 students in no section. */
    private function unplaced(): void
    {
        foreach (['primary' => 4, 'middle' => 3, 'upper' => 2] as $key => $count) {
            for ($i = 0; $i < $count; $i++) {
                $id = $this->ids->for('unplaced', $key, (string) $i);
                $given = DemoNames::GIVEN[($i * 13 + 41) % 100];
                $family = DemoNames::FAMILY[($i * 17 + strlen($key)) % 120];
                $this->person($id, $this->ids->for('school', $key), 'student', $given, $family, [
                    'number' => sprintf('%06d', $this->number++),
                    'grade' => GradeLevel::of(self::SCHOOLS[$key][1] + $i)->code(),
                ]);
                $this->signIn($id, $given, $family, false, false);
            }
        }
    }

    /** 11 invitations in all states, their mails in the Mailroom. */
    private function invitations(): void
    {
        /** @var list<array{string, string, string}> $states */
        $states = [
            ['primary', 'invited', '2026-11-20'],
            ['primary', 'invited', '2026-11-21'],
            ['primary', 'accepted', '2026-08-14'],
            ['primary', 'declined', '2026-08-14'],
            ['primary', 'invited', '2026-08-01'],
            ['middle', 'invited', '2026-11-19'],
            ['middle', 'withdrawn', '2026-08-12'],
            ['middle', 'invited', '2026-08-02'],
            ['upper', 'invited', '2026-11-22'],
            ['upper', 'accepted', '2026-08-15'],
            ['upper', 'declined', '2026-08-16'],
        ];
        foreach ($states as $i => [$key, $state, $sent]) {
            $names = array_keys($this->sections[$key]);
            $name = $names[2 + ($i % 8)];
            $section = $this->sections[$key][$name];
            $staff = $this->staff[$key][8 + $i];
            $mail = '';
            foreach ($this->rows['people'] as $person) {
                $mail = $person['id'] === $staff ? (string) $person['email'] : $mail;
            }
            $role = $i % 3 === 2 ? 'assistant' : 'co_teacher';
            $open = $state === 'invited' && $sent > '2026-09';
            // Open ones stay open for two weeks from the day the demo is made.
            $sentAt = $open
                ? now()
                        ->subDays(3 + ($i % 4))
                        ->format('Y-m-d') . ' 15:00:00'
                : "$sent 15:00:00";
            $this->add('invitations', [
                'id' => $this->ids->for('invitation', (string) $i),
                'version' => 0,
                'section_id' => $section,
                'person_id' => $state === 'accepted' ? $staff : null,
                'email' => $mail,
                'role' => $role,
                'state' => $state,
                'token_hash' => Token::draw($this->kit->random("demo invitation $i"))->hash(),
                'sent_at' => $sentAt,
                'expires_at' => $open
                    ? now()->addDays(9)->format('Y-m-d') . ' 15:00:00'
                    : Carbon::parse($sent)->addDays(14)->format('Y-m-d') . ' 15:00:00',
                'answered_at' =>
                    $state === 'invited' ? null : Carbon::parse($sent)->addDays(2)->format('Y-m-d') . ' 09:00:00',
                'invited_by' => $this->staff[$key][0],
            ]);
            if ($state === 'accepted') {
                $this->enroll($section, $staff, $role, 'invitation');
            }
            $label = str_replace('_', '-', $role);
            // The Mailroom goes by the time in the id.
            $this->add('outgoing_messages', [
                'id' =>
                    substr(Ulid::generate(new DateTimeImmutable($sentAt)), 0, 10) .
                    substr($this->ids->for('message', (string) $i), 10),
                'school_id' => $this->ids->for('school', $key),
                'to_address' => $mail,
                'subject' => "An invitation into $name",
                'text' =>
                    "You are asked to be $label of $name at " .
                    self::SCHOOLS[$key][0] .
                    ".\n\n" .
                    'The link of this message was made with the demo and is not kept; send the invitation ' .
                    "again to get one that works.\n",
                'html' => null,
                'made_at' => $sentAt,
            ]);
        }
    }

    /** 5 newcomers at the door, one of them known to the Roll under a name typed otherwise. */
    private function newcomers(): void
    {
        $known = $this->students['primary.3.9'];
        $asking = [
            ['primary', '3 Heron', $known['given'], $this->plain($known['family']), $known['born']],
            ['primary', '3 Heron', 'Zinnia', 'Fairweather', '2018-04-19'],
            ['primary', 'Harbor choir', 'Ottoline', 'Marsh', '2016-09-02'],
            ['middle', '7 Heron', 'Caspian', 'Thackeray', '2013-12-05'],
            ['upper', '10 Heron', 'Isolde', 'Penhaligon', '2010-03-27'],
        ];
        foreach ($asking as $i => [$key, $name, $given, $family, $born]) {
            $section = $this->sections[$key][$name];
            $this->add('join_requests', [
                'id' => $this->ids->for('newcomer', (string) $i),
                'section_id' => $section,
                'join_code_id' => $this->ids->for('code', $section),
                'state' => 'waiting',
                'cause' => $born > '2013-11-23' ? 'under_13' : 'newcomer',
                'given_name' => $given,
                'family_name' => $family,
                'birth_date' => $born,
                'password' => $this->staffHash,
                'made_at' => now()
                    ->subHours(3 + 7 * $i)
                    ->format('Y-m-d H:i:s'),
            ]);
        }
    }

    private function plain(string $name): string
    {
        return ucwords(NameKey::of($name));
    }

    /** @param  list<string>  $from */
    private function pick(array $from): string
    {
        return $from[$this->random->getInt(0, count($from) - 1)];
    }

    /** @param  array<string, mixed>  $row */
    private function add(string $table, array $row): void
    {
        $this->rows[$table][] = $row;
    }
}
