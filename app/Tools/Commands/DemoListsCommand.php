<?php

declare(strict_types=1);

namespace App\Tools\Commands;

use App\Tools\DemoOneRoster;
use Database\Seeders\DemoNames;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use Random\Engine\Mt19937;
use Random\Randomizer;
use RuntimeException;
use stdClass;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Values\GradeLevel;

/** Writes the lists of demo/ from the demo district as it is when freshly made. */
final class DemoListsCommand extends Command
{
    protected $signature = 'vantrel:demo-lists';

    protected $description = 'Write demo/ from a fresh demo district';

    private Randomizer $random;

    public function handle(): int
    {
        $this->random = new Randomizer(new Mt19937(7));
        $this->fallList();
        $this->newFamilies();
        $this->clubs();
        $this->guardians();
        $this->names();
        (new DemoOneRoster($this->random))->write();

        return self::SUCCESS;
    }

    /**
     * 412 rows: known students, moved ones, new ones, and a handful that need a person. Title above, header in row 3.
     */
    private function fallList(): void
    {
        $students = DB::table('people as p')
            ->join('enrollments as e', 'e.person_id', '=', 'p.id')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->join('schools as c', 'c.id', '=', 'p.school_id')
            ->where('c.code', 'primary')
            ->where('p.kind', 'student')
            ->whereNotNull('p.number')
            ->where('s.kind', 'homeroom')
            ->whereIn('p.grade', ['01', '02', '03', '04', '05'])
            ->orderBy('p.grade')
            ->orderBy('s.name')
            ->orderBy('p.family_name')
            ->orderBy('p.id')
            ->limit(370)
            ->get(['p.*', 's.name as homeroom']);
        $guardians = DB::table('guardianships as g')
            ->join('people as p', 'p.id', '=', 'g.guardian_id')
            ->whereIn('g.student_id', $students->pluck('id'))
            ->orderBy('g.id')
            ->get(['g.student_id', 'p.given_name', 'p.family_name', 'p.email'])
            ->groupBy('student_id');
        $rows = [];
        foreach ($students as $i => $s) {
            $g = ($guardians[$s->id] ?? collect())->first(fn(stdClass $x): bool => $x->email !== null);
            $row = [
                $s->number,
                "$s->family_name, $s->given_name",
                GradeLevel::read($s->grade)?->short(),
                $s->birth_date,
                $s->homeroom,
                $g === null ? '' : "$g->given_name $g->family_name",
                $g->email ?? '',
            ];
            if ($i % 12 === 3) {
                // Moved to the next homeroom of the grade.
                $birds = DemoNames::BIRDS;
                $row[4] =
                    substr($s->homeroom, 0, 2) . $birds[(array_search(substr($s->homeroom, 2), $birds, true) + 1) % 4];
            } elseif ($i % 50 === 7) {
                // No number on the sheet, birth date turned round.
                $row[0] = '';
                $row[3] = checkdate(
                    (int) substr($row[3], 8, 2),
                    (int) substr($row[3], 5, 2),
                    (int) substr($row[3], 0, 4),
                )
                    ? substr($row[3], 0, 5) . substr($row[3], 8, 2) . '-' . substr($row[3], 5, 2)
                    : $row[3];
                $row[6] = '';
            } elseif ($i % 61 === 17) {
                $row[0] = '';
                $row[3] = '';
                $row[6] = '';
                $row[5] = '';
            } elseif ($i % 90 === 30) {
                $row[4] = substr($row[4], 0, -1) . 'm';
            } elseif ($i % 120 === 40) {
                $row[6] = str_replace('@', ' at ', (string) $row[6]) ?: 'see file';
            } elseif ($i % 7 === 2) {
                // A guardian the school did not have.
                $row[5] = $this->pick(DemoNames::GIVEN) . ' ' . $s->family_name;
                $row[6] = str_replace(' ', '.', NameKey::of($row[5])) . '@reefmail.example';
            }
            $rows[] = $row;
        }
        for ($i = 0; $i < 42; $i++) {
            $grade = 1 + ($i % 5);
            $family = $this->pick(DemoNames::FAMILY);
            $guardian = $this->pick(DemoNames::GIVEN) . ' ' . $family;
            $rows[] = [
                sprintf('%06d', 31_001 + $i),
                $family .
                ', ' .
                $this->pick(DemoNames::GIVEN) .
                ($i % 3 === 0 ? ' ' . $this->pick(DemoNames::GIVEN) : ''),
                (string) $grade,
                sprintf('%04d-%02d-%02d', 2021 - $grade, $this->random->getInt(1, 12), $this->random->getInt(1, 28)),
                "$grade " . DemoNames::BIRDS[$i % 4],
                $guardian,
                str_replace(' ', '.', NameKey::of($guardian)) . '@reefmail.example',
            ];
        }
        $rows = $this->random->shuffleArray($rows);
        $this->write('fall-list-grades-1-5.xlsx', [
            ['Lanternfield Primary: fall list, grades 1 to 5'],
            ['printed 21 August 2026'],
            ['Student no.', 'Student name', 'Grade', 'Date of birth', 'Homeroom', 'Guardian', 'Guardian e-mail'],
            ...$rows,
        ]);
    }

    /** 40 new families, family name first without a comma, semicolons, in Windows-1252. */
    private function newFamilies(): void
    {
        $lines = ['Name;Gr;Homeroom;Parent;Parent email;Phone'];
        for ($i = 0; $i < 40; $i++) {
            $grade = $i % 6;
            do {
                $family = $this->pick(DemoNames::FAMILY);
                $given = $this->pick(DemoNames::GIVEN);
                $line = mb_convert_encoding("$family $given", 'Windows-1252', 'UTF-8');
            } while (str_contains($family, ' ') || str_contains((string) $line, '?'));
            do {
                $parent = $this->pick(DemoNames::GIVEN);
            } while (str_contains((string) mb_convert_encoding($parent, 'Windows-1252', 'UTF-8'), '?'));
            $lines[] =
                ($i % 9 === 4 ? mb_strtoupper("$family $given") : "$family $given") .
                ';' .
                ($grade === 0 ? 'K' : "Grade $grade") .
                ';' .
                ($grade === 0 ? 'K' : $grade) .
                ' ' .
                DemoNames::BIRDS[$i % 4] .
                ";$parent $family;" .
                str_replace(' ', '.', NameKey::of("$parent $family")) .
                '@reefmail.example;(202) 555-0' .
                (100 + $i);
        }
        file_put_contents(
            base_path('demo/new-families-surname-first.csv'),
            mb_convert_encoding(implode("\r\n", $lines) . "\r\n", 'Windows-1252', 'UTF-8'),
        );
    }

    /** A sheet for each club, with the names of students who are known, and one who is not. */
    private function clubs(): void
    {
        $writer = WriterEntityFactory::createODSWriter();
        $writer->openToFile(base_path('demo/clubs-a-sheet-each.ods'));
        $students = $this->known(36);
        foreach (['Chess club', 'Robotics club', 'Garden club'] as $n => $club) {
            $sheet = $n === 0 ? $writer->getCurrentSheet() : $writer->addNewSheetAndMakeItCurrent();
            $sheet->setName($club);
            $writer->addRow(WriterEntityFactory::createRowFromArray([$club]));
            $writer->addRow(WriterEntityFactory::createRowFromArray(['Student', 'Grade', 'Student no.']));
            foreach (array_slice($students, $n * 12, 12) as $i => $s) {
                $writer->addRow(
                    WriterEntityFactory::createRowFromArray([
                        "$s->given_name $s->family_name",
                        (string) GradeLevel::read($s->grade)?->short(),
                        $i % 4 === 1 ? '' : (string) $s->number,
                    ]),
                );
            }
        }
        $writer->close();
    }

    /** Guardians in rows of their own, by the number of the student. */
    private function guardians(): void
    {
        $out =
            fopen(base_path('demo/guardians-by-student-number.csv'), 'w') ?:
            throw new RuntimeException('demo/ cannot be written.');
        fputcsv($out, ['Student no.', 'Guardian', 'Relationship', 'E-mail', 'Phone'], ',', '"', '');
        foreach ($this->known(40) as $i => $s) {
            $name = $this->pick(DemoNames::GIVEN) . ' ' . $s->family_name;
            fputcsv(
                $out,
                [
                    $i === 17 ? '099999' : $s->number,
                    $name,
                    ['mother', 'father', 'grandmother'][$i % 3],
                    str_replace(' ', '.', NameKey::of($name)) . '@tidewire.example',
                    sprintf('(202) 555-%04d', 100 + $i),
                ],
                ',',
                '"',
                '',
            );
        }
        fclose($out);
    }

    /** What is copied out of a message: one name a line, numbered, family name first in some. */
    private function names(): void
    {
        $lines = ['Reading support, from Monday:'];
        foreach ($this->known(12) as $i => $s) {
            $lines[] =
                $i + 1 . '. ' . ($i % 3 === 2 ? "$s->family_name, $s->given_name" : "$s->given_name $s->family_name");
        }
        file_put_contents(base_path('demo/names-to-paste.txt'), implode("\n", $lines) . "\n");
    }

    /**
     * @return list<stdClass> students of the primary school: given_name, family_name, number, grade
     */
    private function known(int $n): array
    {
        $ids = DB::table('people as p')
            ->join('schools as c', 'c.id', '=', 'p.school_id')
            ->where('c.code', 'primary')
            ->where('p.kind', 'student')
            ->where('p.state', 'active')
            ->whereNotNull('p.number')
            ->orderBy('p.number')
            ->pluck('p.id')
            ->all();

        return array_values(
            DB::table('people')
                ->whereIn('id', array_slice($this->random->shuffleArray($ids), 0, $n))
                ->orderBy('number')
                ->get(['given_name', 'family_name', 'number', 'grade'])
                ->all(),
        );
    }

    /** @param  list<list<string|null>>  $rows */
    private function write(string $name, array $rows): void
    {
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile(base_path("demo/$name"));
        foreach ($rows as $row) {
            $writer->addRow(WriterEntityFactory::createRowFromArray($row));
        }
        $writer->close();
    }

    /** @param  list<string>  $from */
    private function pick(array $from): string
    {
        return $from[$this->random->getInt(0, count($from) - 1)];
    }
}
