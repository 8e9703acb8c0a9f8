<?php

declare(strict_types=1);

namespace App\Tools\Commands;

use App\Models\School;
use App\Models\SchoolYear;
use App\PrintRoom\CardJob;
use App\PrintRoom\CardPrinter;
use App\PrintRoom\LetterJob;
use App\PrintRoom\LetterPrinter;
use App\PrintRoom\LetterTexts;
use App\PrintRoom\Whom;
use App\Tools\BigSchool;
use App\Tools\Figures;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Process;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;
use Vantrel\Core\PrintRoom\LetterKind;
use Vantrel\Core\PrintRoom\Paper;

final class BenchPrintCommand extends Command
{
    protected $signature = 'vantrel:bench-print {--cards=1000} {--letters=1200}';

    protected $description = 'Measure cards and letters beside LibreOffice; run by bin/bench print';

    private const LANGUAGES = ['en', 'es', 'ar', 'zh'];

    public function handle(CardPrinter $cards, LetterPrinter $letters, LetterTexts $texts): int
    {
        if (DB::table('people')->exists()) {
            $this->error('This wants an empty database. Run bin/bench print.');

            return self::FAILURE;
        }
        $many = max((int) $this->option('cards'), (int) $this->option('letters'));
        [$school, $people] = $this->school($many);
        $whom = fn(string $of): Whom => new Whom([], array_slice($people, 0, (int) $this->option($of)));
        $rows = [];
        foreach (
            [
                'cards' => fn(): string => $cards->print(
                    $school,
                    new CardJob($whom('cards'), Paper::of(CardLayout::A4, CardOrder::CutStack), shorten: true),
                    null,
                ),
                'letters' => fn(): string => $letters->print(
                    $school,
                    new LetterJob(LetterKind::Family, $whom('letters')),
                    null,
                ),
            ]
            as $what => $print
        ) {
            memory_reset_peak_usage();
            $began = hrtime(true);
            $pdf = $print();
            $seconds = (hrtime(true) - $began) / 1e9;
            $peak = memory_get_peak_usage() / 1e6;
            $other = $this->merged($what, $this->rows($what, $texts));
            Figures::note("{$this->option($what)} $what, beside LibreOffice", $seconds / $other, 'ratio');
            Figures::note("{$this->option($what)} $what", $seconds, 's');
            $rows[] = [
                $this->option($what) . " $what",
                sprintf('%.2f s, %.0f MB', $seconds, $peak),
                sprintf('%.1f MB', strlen($pdf) / 1e6),
                sprintf('%.1f s', $other),
                sprintf('%.1f times', $other / $seconds),
            ];
        }
        $this->table(['what', 'issued and set', 'file', 'LibreOffice merges, without squares', 'faster'], $rows);

        return self::SUCCESS;
    }

    /** @return array{School, list<string>} with so many students, their families in four languages */
    private function school(int $students): array
    {
        $this->callSilent('vantrel:seed', ['which' => 'empty']);
        $school = School::query()->firstOrFail();
        $year = SchoolYear::query()->firstOrFail()->id;
        (new BigSchool($school, $year, 2026))->fill((int) ($students * 2.2), 60, 100);
        $people = DB::table('people')
            ->where('kind', 'student')
            ->where('state', 'active')
            ->orderBy('id')
            ->limit($students)
            ->pluck('id')
            ->map(strval(...))
            ->all();
        foreach (self::LANGUAGES as $i => $language) {
            $some = array_filter($people, fn(int $n): bool => $n % 4 === $i, ARRAY_FILTER_USE_KEY);
            DB::table('people')
                ->whereIn('id', $some)
                ->update(['language' => $language]);
        }

        return [$school->refresh(), array_values($people)];
    }

    /**
     * What is merged, a row for each: the same texts, without squares, which its fields cannot hold.
     *
     * @return list<array<string, string>>
     */
    private function rows(string $what, LetterTexts $texts): array
    {
        $rows = [];
        for ($i = 0; $i < (int) $this->option($what); $i++) {
            $rows[] =
                $what === 'cards'
                    ? [
                        'name' => "Noor Haddad $i",
                        'section' => '3 Heron',
                        'user' => "noor.haddad$i",
                        'secret' => 'maple otter candy',
                    ]
                    : [
                        ...array_map(
                            fn(string $text): string => strtr($text, [
                                '{student}' => "Noor Haddad $i",
                                '{school}' => 'Bench',
                                '{address}' => 'vantrel.example/family',
                            ]),
                            $texts->standard(self::LANGUAGES[$i % 4], LetterKind::Family),
                        ),
                        'code' => 'AAA-AAAA-AAA',
                    ];
        }

        return $rows;
    }

    /**
     * Seconds that LibreOffice's own mail merge takes, its start not counted.
     *
     * @param  list<array<string, string>>  $rows
     */
    private function merged(string $what, array $rows): float
    {
        $folder = storage_path("app/bench-print/$what");
        @mkdir($folder, 0700, true);
        $file = fopen("$folder/data.csv", 'w');
        if ($file === false) {
            return 0.0;
        }
        fputcsv($file, array_keys($rows[0] ?? []), escape: '');
        foreach ($rows as $row) {
            fputcsv($file, $row, escape: '');
        }
        fclose($file);
        // Now and then it ends by itself in the middle; then it may try again.
        for ($try = 0; $try < 4; $try++) {
            $run = Process::timeout(1800)->run([
                '/usr/bin/python3',
                base_path('bin/lib/mail-merge.py'),
                $folder,
                $what,
            ]);
            if ($run->successful()) {
                $said = explode("\n", trim($run->output()));

                return (float) end($said);
            }
        }
        $this->warn('LibreOffice did not merge.');

        return 0.0;
    }
}
