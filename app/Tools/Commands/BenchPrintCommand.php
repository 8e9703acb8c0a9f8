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
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Process;
use Vantrel\Core\Codes\QrSymbol;
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
        $folder = storage_path('app/bench-print');
        @mkdir($folder, 0700, true);
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
            $other = $this->office("$folder/$what.fodt", $this->merged($what, $texts), $folder);
            $rows[] = [
                $this->option($what) . " $what",
                sprintf('%.2f s, %.0f MB', $seconds, $peak),
                sprintf('%.1f MB', strlen($pdf) / 1e6),
                sprintf('%.1f s', $other),
                sprintf('%.1f times', $other / $seconds),
            ];
        }
        $this->table(['what', 'issued and set', 'file', 'LibreOffice sets the merged document', 'faster'], $rows);

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

    /** The same texts as one document, as a mail merge puts them together: this is not counted against it. */
    private function merged(string $what, LetterTexts $texts): string
    {
        $number = (int) $this->option($what);
        $line = fn(string $text, string $style = 'Standard'): string => "<text:p text:style-name=\"$style\">" .
            htmlspecialchars(strtr($text, ['{student}' => 'Noor Haddad', '{school}' => 'Bench']), ENT_XML1) .
            '</text:p>';
        $body = '';
        if ($what === 'letters') {
            for ($i = 0; $i < $number; $i++) {
                $language = self::LANGUAGES[$i % 4];
                foreach (array_values($texts->standard($language, LetterKind::Family)) as $n => $text) {
                    $body .= $line($text, $n === 0 ? 'Page' : 'Standard');
                }
                $body .= $this->picture("letter $i") . $this->picture("slip $i");
            }
        } else {
            $cell = fn(int $i): string => '<table:table-cell>' .
                implode('', array_map($line, ['Noor Haddad', '3 Heron', 'User name', "noor.haddad$i", 'Passphrase'])) .
                $line('maple otter candy') .
                $this->picture("card $i") .
                '</table:table-cell>';
            for ($i = 0; $i < $number; $i += 2) {
                $body .= '<table:table-row>' . $cell($i) . $cell($i + 1) . '</table:table-row>';
            }
            $body = "<table:table><table:table-column table:number-columns-repeated=\"2\"/>$body</table:table>";
        }

        return '<?xml version="1.0" encoding="UTF-8"?><office:document ' .
            'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' .
            'xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" ' .
            'xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" ' .
            'xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" ' .
            'xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0" ' .
            'xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0" ' .
            'xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0" office:version="1.2" ' .
            'office:mimetype="application/vnd.oasis.opendocument.text"><office:automatic-styles>' .
            '<style:style style:name="Page" style:family="paragraph" style:parent-style-name="Standard">' .
            '<style:paragraph-properties fo:break-before="page"/></style:style></office:automatic-styles>' .
            "<office:body><office:text>$body</office:text></office:body></office:document>";
    }

    /** A square as a picture in the text, as a mail merge takes it. */
    private function picture(string $of): string
    {
        $symbol = QrSymbol::of("https://vantrel.example/b#$of and its token");
        $image = imagecreate(max(1, $symbol->size), max(1, $symbol->size));
        imagecolorallocate($image, 255, 255, 255);
        $black = (int) imagecolorallocate($image, 0, 0, 0);
        foreach ($symbol->runs() as [$x, $y, $length]) {
            imageline($image, $x, $y, $x + $length - 1, $y, $black);
        }
        ob_start();
        imagepng($image);

        return '<text:p><draw:frame text:anchor-type="as-char" svg:width="24mm" svg:height="24mm"><draw:image>' .
            '<office:binary-data>' .
            base64_encode((string) ob_get_clean()) .
            '</office:binary-data></draw:image></draw:frame></text:p>';
    }

    /** Seconds that LibreOffice takes to make a PDF of it, once warm. */
    private function office(string $file, string $document, string $folder): float
    {
        $run = fn(string $of): int => Process::timeout(900)
            ->run([
                'soffice',
                "-env:UserInstallation=file://$folder/profile",
                '--headless',
                '--convert-to',
                'pdf',
                '--outdir',
                $folder,
                $of,
            ])
            ->exitCode() ?? 1;
        // The first start makes a profile.
        file_put_contents($file, $document);
        if ($run($file) !== 0) {
            $this->warn('LibreOffice is not there; install libreoffice-writer.');

            return 0.0;
        }
        $began = hrtime(true);
        $run($file);

        return (hrtime(true) - $began) / 1e9;
    }
}
