<?php

declare(strict_types=1);

namespace Tests\Support;

use App\LookAlikes\Finding;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Roll\KeptProblems;
use App\Roll\SearchIndex;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Names\NameKey;

/** Two small schools with one person of every role, for tests. */
final class World
{
    public string $school;

    public string $otherSchool;

    public string $year;

    public string $section;

    public string $otherSection;

    /** @var array<string, string> role to person's id */
    public array $people = [];

    public string $code = '';

    public static function make(): self
    {
        $world = new self();
        $world->school = $world->school('primary', 'Lanternfield Primary', 0, 5);
        $world->otherSchool = $world->school('middle', 'Copperbrook Middle', 6, 8);
        $world->year = (string) DB::table('school_years')->where('school_id', $world->school)->value('id');
        $world->section = $world->section($world->school, '3 Heron', 'homeroom', '03');
        $world->otherSection = $world->section($world->school, '3 Plover', 'homeroom', '03');
        $world->people['coordinator'] = $world->staff($world->school, 'Ines Halloran');
        $world->people['other coordinator'] = $world->staff($world->otherSchool, 'Saskia Thorne');
        $world->coordinates($world->people['coordinator'], $world->school);
        $world->coordinates($world->people['other coordinator'], $world->otherSchool);
        foreach (
            ['lead' => 'Petra Okonjo', 'co_teacher' => 'Marten Vale', 'assistant' => 'Odile Kerr']
            as $role => $name
        ) {
            $world->people[$role] = $world->staff($world->school, $name);
            $world->enroll($world->section, $world->people[$role], $role);
        }
        $world->people['substitute'] = $world->staff($world->school, 'Jorun Falk');
        $world->enroll(
            $world->section,
            $world->people['substitute'],
            'substitute',
            gmdate('Y-m-d', time() - 86400),
            gmdate('Y-m-d', time() + 86400 * 3),
        );
        $world->people['past substitute'] = $world->staff($world->school, 'Tamsin Reyes');
        $world->enroll(
            $world->section,
            $world->people['past substitute'],
            'substitute',
            gmdate('Y-m-d', time() - 86400 * 5),
            gmdate('Y-m-d'),
        );
        $world->people['other teacher'] = $world->staff($world->school, 'Ruben Aske');
        $world->enroll($world->otherSection, $world->people['other teacher'], 'lead');
        $world->people['student'] = $world->student('Wilhelmina Seabright', $world->section, [
            'number' => '020001',
            'birth_date' => '2018-02-11',
            'grade' => '03',
        ]);
        $world->people['guardian'] = $world->person($world->school, 'guardian', 'Hélène Marchetti', [
            'email' => 'helene@shoremail.example',
            'email_state' => 'confirmed',
            'email_by' => 'mail',
        ]);
        $world->signIn($world->people['guardian'], 'helene@shoremail.example', password: 'lantern harbor morning');
        $world->insert('guardianships', [
            'student_id' => $world->people['student'],
            'guardian_id' => $world->people['guardian'],
            'state' => 'connected',
        ]);
        $world->code = $world->code($world->section, 'KDM4X7');

        return $world;
    }

    public function school(string $code, string $name, int $low, int $high): string
    {
        $id = $this->insert(
            'schools',
            [
                'code' => $code,
                'name' => $name,
                'lowest_grade' => $low,
                'highest_grade' => $high,
                'mail_domains' => '["lanternfield.example"]',
                'time_zone' => 'UTC',
                'country' => 'US',
            ],
            false,
        );
        $this->insert('school_years', [
            'school_id' => $id,
            'name' => '2026-27',
            'begins_on' => '2026-08-24',
            'ends_on' => '2027-06-12',
            'state' => 'current',
        ]);

        return $id;
    }

    public function section(string $school, string $name, string $kind = 'class', ?string $grade = null): string
    {
        return $this->insert('sections', [
            'school_id' => $school,
            'school_year_id' => DB::table('school_years')
                ->where('school_id', $school)
                ->where('state', 'current')
                ->value('id'),
            'name' => $name,
            'kind' => $kind,
            'grade' => $grade,
            'state' => 'open',
        ]);
    }

    public function staff(string $school, string $name): string
    {
        $mail = str_replace(' ', '.', NameKey::of($name)) . '@lanternfield.example';
        $id = $this->person($school, 'staff', $name, [
            'email' => $mail,
            'email_state' => 'confirmed',
            'email_by' => 'school',
        ]);
        $this->signIn($id, $mail, password: 'lantern harbor morning');

        return $id;
    }

    public function coordinates(string $person, string $school): void
    {
        $this->insert('coordinators', ['person_id' => $person, 'school_id' => $school]);
    }

    /** @param  array<string, string|null>  $more */
    public function student(string $name, ?string $section = null, array $more = [], ?string $passphrase = null): string
    {
        $id = $this->person($this->school, 'student', $name, $more);
        $this->signIn(
            $id,
            str_replace(' ', '.', NameKey::of($name)) .
                (DB::table('sign_ins')->where('user_name', str_replace(' ', '.', NameKey::of($name)))->exists()
                    ? Str::lower(Str::random(4))
                    : ''),
            $passphrase,
        );
        if ($section !== null) {
            $this->enroll($section, $id, 'student');
        }

        return $id;
    }

    /** @param  array<string, string|null>  $more */
    public function person(string $school, string $kind, string $name, array $more = []): string
    {
        [$given, $family] = explode(' ', $name, 2) + [1 => ''];

        return $this->insert('people', [
            'school_id' => $school,
            'kind' => $kind,
            'given_name' => $given,
            'family_name' => $family,
            'search_name' => NameKey::of($name),
            'state' => 'active',
            ...$more,
        ]);
    }

    public function signIn(
        string $person,
        string $userName,
        ?string $passphrase = null,
        ?string $password = null,
    ): string {
        return $this->insert('sign_ins', [
            'person_id' => $person,
            'user_name' => $userName,
            'passphrase' => $passphrase === null ? null : Crypt::encryptString($passphrase),
            'password' => $password === null ? null : Hash::make($password),
        ]);
    }

    public function badge(string $person, string $plain): void
    {
        $this->insert('badges', [
            'sign_in_id' => DB::table('sign_ins')->where('person_id', $person)->value('id'),
            'token_hash' => Token::hashOf($plain),
            'state' => 'live',
            'made_at' => '2026-08-20 10:00:00',
        ]);
    }

    public function enroll(
        string $section,
        string $person,
        string $role,
        string $begins = '2026-08-24',
        ?string $ends = null,
    ): string {
        return $this->insert('enrollments', [
            'section_id' => $section,
            'person_id' => $person,
            'role' => $role,
            'begins_on' => $begins,
            'ends_on' => $ends,
            'source' => 'list',
        ]);
    }

    public function code(string $section, string $payload): string
    {
        $code = CodeSymbols::fromPayload($payload);
        $this->insert('join_codes', [
            'section_id' => $section,
            'code' => $code->symbols,
            'state' => 'open',
            'opened_at' => '2026-08-24 12:00:00',
        ]);

        return $code->symbols;
    }

    public function as(string $role): Person
    {
        return Person::query()->findOrFail($this->people[$role]);
    }

    public function schoolModel(): School
    {
        return School::query()->findOrFail($this->school);
    }

    public function sectionModel(): Section
    {
        return Section::query()->findOrFail($this->section);
    }

    /** A print of the last hour by somebody. */
    public function print(string $role): string
    {
        return $this->insert(
            'print_runs',
            [
                'school_id' => $this->school,
                'person_id' => $this->people[$role],
                'what' => '1 login card',
                'state' => 'done',
                'total' => 1,
                'sealed' => Crypt::encryptString('%PDF'),
                'made_at' => now(),
                'expires_at' => now()->addDay(),
            ],
            false,
        );
    }

    /** Somebody who is at the door and waits. */
    public function asking(): string
    {
        return $this->insert('join_requests', [
            'section_id' => $this->section,
            'state' => 'waiting',
            'cause' => 'newcomer',
            'given_name' => 'Marlo',
            'family_name' => 'Quill',
            'made_at' => now(),
        ]);
    }

    /** A list that is planned. */
    public function intake(): string
    {
        return $this->insert(
            'imports',
            [
                'school_id' => $this->school,
                'title' => 'x',
                'files' => '[]',
                'state' => 'planned',
                'answers' => '{}',
                'made_at' => now(),
                'changed_at' => now(),
            ],
            false,
        );
    }

    /** @param  array<string, mixed>  $row */
    public function insert(string $table, array $row, bool $versioned = true): string
    {
        $id = (string) Str::ulid();
        DB::table($table)->insert(['id' => $id, ...$versioned ? ['version' => 0] : [], ...$row]);

        return $id;
    }

    /** What follows entries of its own accord, where people come into the tables without any. */
    public function lookThrough(): void
    {
        app(KeptProblems::class)->all($this->school);
        app(SearchIndex::class)->all();
        $finding = app(Finding::class);
        $finding->all($this->school);
        $finding->run();
    }

    /** A checksum of every table that plans change, row by row. @return array<string, string> */
    public static function checksum(): array
    {
        $sums = [];
        foreach (
            [
                'schools',
                'school_years',
                'people',
                'sign_ins',
                'badges',
                'sections',
                'enrollments',
                'join_codes',
                'invitations',
                'join_requests',
                'room_passes',
                'guardianships',
                'known_apart',
                'coordinators',
                'identities',
                'transfer_requests',
            ]
            as $table
        ) {
            $rows = DB::table($table)
                ->orderBy('id')
                ->get()
                ->map(fn(object $row): string => json_encode($row, JSON_THROW_ON_ERROR))
                ->all();
            $sums[$table] = hash('sha256', implode("\n", $rows));
        }

        return $sums;
    }
}
