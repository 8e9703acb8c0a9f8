<?php

declare(strict_types=1);

namespace App\Tools;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;

/** Made-up students with their guardians, known beforehand or in a list; the same of one number. */
final class BenchList
{
    /**
     * A student of a number, who has a user name and nothing else yet.
     *
     * @return array{array<string, string|int>, array<string, string|int>} rows of people and sign_ins
     */
    public function pupil(int $n, string $schoolId): array
    {
        $person = (string) Str::ulid();

        return [
            [
                'id' => $person,
                'version' => 0,
                'school_id' => $schoolId,
                'kind' => 'student',
                'given_name' => "Pupil$n",
                'family_name' => 'Family' . $n % 5000,
                'search_name' => "pupil$n family" . $n % 5000,
                'number' => sprintf('%06d', $n),
                'grade' => sprintf('%02d', 1 + ($n % 12)),
                'state' => 'active',
            ],
            ['id' => (string) Str::ulid(), 'version' => 0, 'person_id' => $person, 'user_name' => "pupil$n"],
        ];
    }

    /** @return array<string, mixed> row of badges: a card that works, with this token */
    public function card(string $signInId, string $token): array
    {
        return [
            'id' => (string) Str::ulid(),
            'version' => 0,
            'sign_in_id' => $signInId,
            'token_hash' => hash('sha256', $token),
            'state' => 'live',
            'made_at' => now(),
        ];
    }

    /** @return string id of an open section that students come into by this code, no more of them than the cap */
    public function section(string $schoolId, string $yearId, int $n, string $code, ?int $cap): string
    {
        $section = (string) Str::ulid();
        DB::table('sections')->insert([
            'id' => $section,
            'version' => 0,
            'school_id' => $schoolId,
            'school_year_id' => $yearId,
            'name' => "Section $n",
            'kind' => 'class',
            'state' => 'open',
        ]);
        DB::table('join_codes')->insert([
            'id' => (string) Str::ulid(),
            'version' => 0,
            'section_id' => $section,
            'code' => $code,
            'state' => 'open',
            'opened_at' => now(),
            'cap' => $cap,
        ]);

        return $section;
    }

    /** People made up beforehand: students of the list's kind, and as many guardians. */
    public function people(string $schoolId, int $n): void
    {
        $people = $links = [];
        $flush = function () use (&$people, &$links): void {
            DB::table('people')->insert($people);
            DB::table('guardianships')->insert($links);
            $people = $links = [];
        };
        for ($i = 0; $i < intdiv($n, 2); $i++) {
            $student = $this->student($i);
            $common = [
                'version' => 0,
                'school_id' => $schoolId,
                'state' => 'active',
                'merged_into' => null,
                'phone' => null,
            ];
            $people[] = [
                ...$common,
                'id' => ($a = (string) Str::ulid()),
                'kind' => 'student',
                'given_name' => $student[1],
                'family_name' => $student[2],
                'search_name' => strtolower("$student[1] $student[2]"),
                'birth_date' => $student[3],
                'number' => $student[0],
                'grade' => sprintf('%02d', $student[4]),
                'email' => null,
            ];
            $people[] = [
                ...$common,
                'id' => ($b = (string) Str::ulid()),
                'kind' => 'guardian',
                'given_name' => explode(' ', $student[6])[0],
                'family_name' => $student[2],
                'search_name' => strtolower($student[6]),
                'birth_date' => null,
                'number' => null,
                'grade' => null,
                'email' => $student[7],
            ];
            $links[] = [
                'id' => (string) Str::ulid(),
                'version' => 0,
                'student_id' => $a,
                'guardian_id' => $b,
                'state' => 'listed',
            ];
            if (count($people) >= 1000) {
                $flush();
            }
        }
        $flush();
    }

    /**
     * The student of a number: always the same for the same one, whoever asks.
     *
     * @return array{string, string, string, string, int, string, string, string, string, string}
     */
    private function student(int $i): array
    {
        mt_srand($i + 1);
        [$given, $family] = [$this->name(), $this->name()];
        $grade = ($i % 12) + 1;

        return [
            sprintf('%07d', 1_000_000 + $i),
            $given,
            $family,
            sprintf('%04d-%02d-%02d', 2020 - $grade, mt_rand(1, 12), mt_rand(1, 28)),
            $grade,
            "$grade " . ['Heron', 'Plover', 'Curlew', 'Tern'][intdiv($i, 12) % 4],
            $this->name() . " $family",
            "a$i@shoremail.example",
            $this->name() . " $family",
            "b$i@shoremail.example",
        ];
    }

    /** @param  int  $known students known: half of the rows are among them, the other half come after */
    public function list(string $file, int $rows, int $known): void
    {
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($file);
        $writer->addRow(
            WriterEntityFactory::createRowFromArray([
                'Student no',
                'Given name',
                'Family name',
                'Date of birth',
                'Grade',
                'Homeroom',
                'Guardian 1',
                'Guardian 1 e-mail',
                'Guardian 2',
                'Guardian 2 e-mail',
            ]),
        );
        for ($i = 0; $i < $rows; $i++) {
            $student = $this->student($known === 0 || $i % 2 === 1 ? $known + $i : ($i * 7) % $known);
            $writer->addRow(WriterEntityFactory::createRowFromArray(array_map(strval(...), $student)));
        }
        $writer->close();
    }

    private function name(): string
    {
        $parts = ['ba', 'ko', 'mi', 'ra', 'te', 'no', 'li', 'sa', 'vu', 'do', 'he', 'ja'];

        return ucfirst(
            $parts[mt_rand(0, 11)] . $parts[mt_rand(0, 11)] . $parts[mt_rand(0, 11)] . $parts[mt_rand(0, 11)],
        );
    }
}
