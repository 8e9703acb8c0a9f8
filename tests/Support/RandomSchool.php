<?php

declare(strict_types=1);

namespace Tests\Support;

use Random\Engine\Mt19937;
use Random\Randomizer;
use Vantrel\Core\Intake\GuardianLine;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Record;

/** A school at random, and a list at random of some who are known, some who are not, and slips of every kind. */
final class RandomSchool
{
    // prettier-ignore
    private const GIVEN = [
        'Noor', 'Kai', 'Léa', 'Uma', 'Bo', 'Amara', 'Tobias', 'Grace', 'Emre', 'Ada', 'Duc Anh', 'Sofía', 'Yusuf',
        'Mei', 'Hana', 'Jonas',
    ];

    // prettier-ignore
    private const FAMILY = [
        'Haddad', 'Wu', 'Marchetti', 'Rao', 'Ek', 'Nwosu-Vale', 'Achterberg', 'Adeyemi', 'Yıldız', 'Ortiz Reyes',
        'Pham', 'van der Meer', 'O’Dwyer', 'Chen',
    ];

    public readonly Snapshot $snapshot;

    private Randomizer $random;

    /** @var array<string, array<string, Record>> */
    private array $tables = [];

    public function __construct(int $seed, private readonly int $students = 40)
    {
        $this->random = new Randomizer(new Mt19937($seed));
        $this->build();
        $this->snapshot = new Snapshot($this->tables, ['school' => 'Here', 'other' => 'Elsewhere']);
    }

    /** @return list<StudentLine> */
    public function list(int $rows = 30): array
    {
        $known = array_values(
            array_filter($this->tables['people'], fn(Record $p): bool => $p->field('kind') === 'student'),
        );
        $lines = [];
        for ($i = 0; $i < $rows; $i++) {
            $person = $this->chance(70) ? $known[$this->upTo(count($known))] : null;
            $given = $person?->field('given_name') ?? $this->one(self::GIVEN);
            $family = $person?->field('family_name') ?? $this->one(self::FAMILY);
            if ($this->chance(8)) {
                [$given, $family] = [$family, $given];
            }
            if ($this->chance(8)) {
                $given = substr_replace(NameKey::of($given), 'x', 1, 1);
            }
            $grade = $this->chance(20) ? '0' . $this->upTo(6) : $person?->field('grade') ?? '03';
            $guardians = [];
            for ($g = $this->upTo(3); $g > 0; $g--) {
                $name = new PersonName($this->one(self::GIVEN), $family);
                $guardians[] = new GuardianLine(
                    $name,
                    $this->chance(70) ? NameKey::of($name->given) . $this->upTo(9) . '@x.example' : '',
                    $this->chance(40) ? '+1202555010' . $this->upTo(9) : '',
                );
            }
            $lines[] = new StudentLine(
                $i + 2,
                new PersonName($given, $family),
                $this->chance(60) ? $person?->field('number') ?? sprintf('9%03d', $this->upTo(20)) : '',
                $this->chance(60)
                    ? $person?->field('birth_date') ?? sprintf('2016-0%d-1%d', 1 + $this->upTo(8), $this->upTo(9))
                    : '',
                $grade === '00' ? 'KG' : $grade,
                $this->chance(70) ? $this->one(['3 Heron', '3 Tern', '4 Curlew', '4 Curlw', '5 Wren']) : '',
                $this->chance(30) ? [$this->one(['Art 4', 'Music', 'Chess club'])] : [],
                '',
                $guardians,
                [],
            );
        }

        return $lines;
    }

    /** Contents and versions of every record, to compare snapshots by. @return array<string, array<string, mixed>> */
    public static function contents(Snapshot $snapshot): array
    {
        $all = [];
        foreach (Entity::cases() as $entity) {
            foreach ($snapshot->records($entity) as $id => $row) {
                $values = $row->values;
                ksort($values);
                $all[$entity->value][$id] = [$row->version, $values];
            }
            if (isset($all[$entity->value])) {
                ksort($all[$entity->value]);
            }
        }

        return $all;
    }

    private function build(): void
    {
        $this->row('school_years', 'year', [
            'school_id' => 'school',
            'name' => '2026-27',
            'begins_on' => '2026-08-24',
            'ends_on' => '2027-06-12',
            'state' => 'current',
        ]);
        foreach (
            [
                '3 Heron' => ['homeroom', '03'],
                '3 Tern' => ['homeroom', '03'],
                '4 Curlew' => ['homeroom', '04'],
                'Art 4' => ['class', '04'],
            ]
            as $name => [$kind, $grade]
        ) {
            $id = 'sec-' . NameKey::of($name);
            $this->row('sections', $id, [
                'school_id' => 'school',
                'school_year_id' => 'year',
                'name' => $name,
                'kind' => $kind,
                'grade' => $grade,
                'period' => null,
                'seats' => null,
                'state' => 'open',
                'archived_on' => null,
                'carried_from' => null,
            ]);
            $this->row('join_codes', "code-$id", [
                'section_id' => $id,
                'code' => "X$id",
                'state' => 'open',
                'opened_at' => '2026-08-24 08:00:00',
                'closed_at' => null,
            ]);
            $this->row('people', "t-$id", [
                'school_id' => 'school',
                'kind' => 'staff',
                'given_name' => 'T',
                'family_name' => $name,
                'preferred_name' => null,
                'language' => null,
                'search_name' => 't',
                'birth_date' => null,
                'number' => null,
                'grade' => null,
                'email' => "$id@x.example",
                'email_state' => 'confirmed',
                'phone' => null,
                'state' => 'active',
                'merged_into' => null,
            ]);
            $this->row('enrollments', "lead-$id", [
                'section_id' => $id,
                'person_id' => "t-$id",
                'role' => 'lead',
                'begins_on' => '2026-08-24',
                'ends_on' => null,
                'source' => 'hand',
            ]);
        }
        for ($i = 0; $i < $this->students; $i++) {
            $name = new PersonName($this->one(self::GIVEN), $this->one(self::FAMILY));
            $id = sprintf('p%04d', $i);
            $this->row('people', $id, [
                'school_id' => $this->chance(85) ? 'school' : 'other',
                'kind' => 'student',
                'given_name' => $name->given,
                'family_name' => $name->family,
                'preferred_name' => null,
                'language' => null,
                'search_name' => $name->searchKey(),
                'birth_date' => $this->chance(80) ? sprintf('2016-0%d-1%d', 1 + $this->upTo(8), $this->upTo(9)) : null,
                'number' => $this->chance(80) ? sprintf('02%04d', $i) : null,
                'grade' => sprintf('0%d', 3 + $this->upTo(3)),
                'email' => null,
                'phone' => null,
                'state' => $this->chance(90) ? 'active' : 'left',
                'merged_into' => null,
            ]);
            $this->row('sign_ins', "s$id", [
                'person_id' => $id,
                'user_name' => "user$i",
                'passphrase' => null,
                'password' => null,
                'last_signed_in_at' => $this->chance(50) ? '2026-09-01 09:00:00' : null,
            ]);
            foreach (['sec-3 heron', 'sec-3 tern', 'sec-4 curlew', 'sec-art 4'] as $section) {
                if ($this->chance(25)) {
                    $this->row('enrollments', "e$id$section", [
                        'section_id' => $section,
                        'person_id' => $id,
                        'role' => 'student',
                        'begins_on' => '2026-08-24',
                        'ends_on' => $this->chance(20) ? '2026-09-20' : null,
                        'source' => 'list',
                    ]);
                }
            }
            if ($this->chance(60)) {
                $guardian = "g$i";
                $this->row('people', $guardian, [
                    'school_id' => 'school',
                    'kind' => 'guardian',
                    'given_name' => 'Ann',
                    'family_name' => $name->family,
                    'preferred_name' => null,
                    'language' => null,
                    'search_name' => NameKey::of("Ann $name->family"),
                    'birth_date' => null,
                    'number' => null,
                    'grade' => null,
                    'email' => "ann$i@x.example",
                    'email_state' => 'claimed',
                    'email_by' => null,
                    'email_at' => null,
                    'phone' => null,
                    'state' => 'active',
                    'merged_into' => null,
                ]);
                $this->row('guardianships', "gs$i", [
                    'student_id' => $id,
                    'guardian_id' => $guardian,
                    'relationship' => null,
                    'state' => 'listed',
                    'restriction' => null,
                    'state_at' => null,
                    'state_by' => null,
                ]);
            }
        }
    }

    /** @param  array<string, string|int|null>  $values */
    private function row(string $table, string $id, array $values): void
    {
        $this->tables[$table][$id] = new (Entity::from($table)->record())($id, 1, $values);
    }

    private function chance(int $percent): bool
    {
        return $this->random->getInt(1, 100) <= $percent;
    }

    private function upTo(int $n): int
    {
        return $this->random->getInt(0, max(0, $n - 1));
    }

    /** @param  list<string>  $from */
    private function one(array $from): string
    {
        return $from[$this->upTo(count($from))];
    }
}
