<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

use Closure;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Entity;

/** Random histories of a small school, and the smallest part of one that still fails. */
final class Histories
{
    public const NOW = '2026-10-01 08:00:00';

    public const TODAY = '2026-10-01';

    /** @return list<Step> */
    public static function random(int $seed, int $length = 12, int $actors = 3, bool $signIns = true): array
    {
        $random = new Randomizer(new Mt19937($seed));
        $kinds = Step::KINDS;
        if (!$signIns) {
            unset($kinds['sign-in']);
        }
        $sum = array_sum($kinds);
        $steps = [];
        for ($i = 0; $i < $length; $i++) {
            $n = $random->getInt(1, $sum);
            foreach ($kinds as $kind => $weight) {
                $n -= $weight;
                if ($n <= 0) {
                    $steps[] = new Step(
                        $random->getInt(0, $actors - 1),
                        $kind,
                        $random->getInt(0, 999),
                        $random->getInt(0, 999),
                        $random->getInt(0, 999),
                    );
                    break;
                }
            }
        }

        return $steps;
    }

    /**
     * Leaves out whatever is not needed for the failure.
     *
     * @param  list<Step>  $steps
     * @param  Closure(list<Step>): bool  $fails
     * @return list<Step>
     */
    public static function shrink(array $steps, Closure $fails): array
    {
        for ($size = intdiv(count($steps), 2); $size >= 1; $size = intdiv($size, 2)) {
            for ($at = 0; $at < count($steps); ) {
                $fewer = [...array_slice($steps, 0, $at), ...array_slice($steps, $at + $size)];
                if ($fails($fewer)) {
                    $steps = $fewer;
                } else {
                    $at += $size;
                }
            }
        }

        return $steps;
    }

    /**
     * A school with a year, four sections with codes and leads, eight students, two guardians, and cards.
     *
     * @return array<string, array<string, array<string, string|int|null>>> table to id to row
     */
    public static function beginning(string $seed = '01K6F0000000000000000000AA'): array
    {
        $ids = new Ids($seed);
        $person = [
            'email' => null,
            'phone' => null,
            'language' => null,
            'birth_date' => null,
            'number' => null,
            'grade' => null,
            'state' => 'active',
            'merged_into' => null,
        ];
        $school = $ids->for('school');
        $year = $ids->for('year');
        $rows = [
            'schools' => [
                $school => [
                    'code' => 'hist',
                    'name' => 'History Primary',
                    'lowest_grade' => 0,
                    'highest_grade' => 5,
                    'mail_domains' => '["history.example"]',
                    'time_zone' => 'UTC',
                    'country' => 'US',
                ],
            ],
            'school_years' => [
                $year => [
                    'school_id' => $school,
                    'name' => '2026-27',
                    'begins_on' => '2026-08-24',
                    'ends_on' => '2027-06-12',
                    'state' => 'current',
                ],
            ],
        ];
        foreach (
            ['3 Heron' => 'homeroom', '3 Tern' => 'homeroom', '4 Curlew' => 'homeroom', 'Art 4' => 'class']
            as $name => $kind
        ) {
            $section = $ids->for('section', $name);
            $rows['sections'][$section] = [
                'school_id' => $school,
                'school_year_id' => $year,
                'name' => $name,
                'kind' => $kind,
                'grade' => $name[0] === 'A' ? '04' : "0$name[0]",
                'period' => null,
                'seats' => null,
                'state' => 'open',
                'archived_on' => null,
                'carried_from' => null,
            ];
            $rows['join_codes'][$ids->for('code', $name)] = [
                'section_id' => $section,
                'code' => strtoupper(
                    substr(strtr(base64_encode(hash('sha256', $seed . $name, true)), '+/01OIL', 'XXXXXXX'), 0, 7),
                ),
                'state' => 'open',
                'who' => 'approval',
                'starts_at' => null,
                'ends_at' => null,
                'cap' => null,
                'opened_at' => '2026-08-24 08:00:00',
                'closed_at' => null,
            ];
            $lead = $ids->for('lead', $name);
            $rows['people'][$lead] = [
                ...$person,
                'school_id' => $school,
                'kind' => 'staff',
                'given_name' => 'Lead',
                'family_name' => $name,
                'preferred_name' => null,
                'language' => null,
                'search_name' => strtolower("lead $name"),
                'email' => strtolower(str_replace(' ', '', $name)) . '@history.example',
                'email_state' => 'confirmed',
            ];
            $rows['enrollments'][$ids->for('led', $name)] = [
                'section_id' => $section,
                'person_id' => $lead,
                'role' => 'lead',
                'begins_on' => '2026-08-24',
                'ends_on' => null,
                'source' => 'hand',
                'join_code_id' => null,
                'came_at' => null,
            ];
        }
        $sections = array_keys($rows['sections']);
        foreach (Player::POOL as $n => [$given, $family]) {
            if ($n >= 8) {
                break;
            }
            $id = $ids->for('student', (string) $n);
            $rows['people'][$id] = [
                ...$person,
                'school_id' => $school,
                'kind' => 'student',
                'given_name' => $given,
                'family_name' => $family,
                'preferred_name' => null,
                'language' => null,
                'search_name' => strtolower("$given $family"),
                'birth_date' => $n % 3 === 0 ? null : '2017-03-0' . (1 + ($n % 5)),
                'number' => $n % 2 === 0 ? sprintf('02%04d', $n) : null,
                'grade' => '0' . (3 + ($n % 3)),
            ];
            $signIn = $ids->for('sign-in', (string) $n);
            $rows['sign_ins'][$signIn] = [
                'person_id' => $id,
                'user_name' => "hist.child$n",
                'passphrase' => null,
                'password' => null,
                'last_signed_in_at' => $n % 4 === 0 ? '2026-09-01 09:00:00' : null,
            ];
            $rows['badges'][$ids->for('badge', (string) $n)] = [
                'sign_in_id' => $signIn,
                'token_hash' => hash('sha256', $seed . $n),
                'state' => 'live',
                'made_at' => '2026-08-20 10:00:00',
                'ended_at' => null,
            ];
            $rows['enrollments'][$ids->for('in', (string) $n)] = [
                'section_id' => $sections[$n % 4],
                'person_id' => $id,
                'role' => 'student',
                'begins_on' => '2026-08-24',
                'ends_on' => $n === 5 ? '2026-09-20' : null,
                'source' => 'list',
                'join_code_id' => null,
                'came_at' => null,
            ];
            if ($n < 3) {
                $guardian = $ids->for('guardian', (string) min($n, 1));
                $rows['people'][$guardian] = [
                    ...$person,
                    'school_id' => $school,
                    'kind' => 'guardian',
                    'given_name' => 'Ann',
                    'family_name' => $family,
                    'preferred_name' => null,
                    'language' => null,
                    'search_name' => strtolower("ann $family"),
                    'email' => 'ann' . min($n, 1) . '@shoremail.example',
                    'email_state' => 'claimed',
                    'email_by' => null,
                    'email_at' => null,
                ];
                $rows['guardianships'][$ids->for('listed', (string) $n)] = [
                    'student_id' => $id,
                    'guardian_id' => $guardian,
                    'relationship' => null,
                    'state' => 'listed',
                    'restriction' => null,
                    'state_at' => null,
                    'state_by' => null,
                ];
            }
        }

        return $rows;
    }

    /** @param  array<string, array<string, array<string, string|int|null>>>  $rows */
    public static function snapshotOf(array $rows): Snapshot
    {
        $tables = [];
        foreach ($rows as $table => $records) {
            foreach ($records as $id => $values) {
                $tables[$table][$id] = new (Entity::from($table)->record())($id, 0, $values);
            }
        }

        return new Snapshot($tables, array_map(fn(array $s): string => (string) $s['name'], $rows['schools']));
    }
}
