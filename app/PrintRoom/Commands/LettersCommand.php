<?php

declare(strict_types=1);

namespace App\PrintRoom\Commands;

use App\Models\School;
use App\Models\Section;
use App\PrintRoom\LetterJob;
use App\PrintRoom\LetterPrinter;
use App\PrintRoom\Whom;
use Illuminate\Console\Command;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\LetterKind;
use Vantrel\Core\Values\Language;

final class LettersCommand extends Command
{
    protected $signature =
        'vantrel:letters {--section= : id of one section} {--school= : code of a school, for all its open ' .
        'homerooms} {--kind=family : family or summer} {--language= : of all letters; each family’s own where none ' .
        'is said} {--otherwise=en : where it is not known} {--paper=a4 : a4 or letter} ' .
        '{--without : our words where the school’s own are missing} {--out= : the PDF to write}';

    protected $description = 'Print letters to families into a PDF';

    public function handle(LetterPrinter $printer): int
    {
        $out = (string) $this->option('out');
        $section = $this->option('section') === null ? null : Section::query()->find($this->option('section'));
        $school =
            $section !== null
                ? School::query()->find($section->school_id)
                : School::query()->where('code', (string) $this->option('school'))->first();
        $kind = LetterKind::tryFrom((string) $this->option('kind'));
        $language = $this->option('language') === null ? null : (string) $this->option('language');
        $otherwise = (string) $this->option('otherwise');
        if ($out === '' || $school === null || $kind === null || $kind === LetterKind::Handout) {
            $this->error(
                match (true) {
                    $out === '' => 'Say where the PDF goes: --out=FILE.pdf',
                    $school === null => 'No such section or school. Give --section=ID or --school=CODE.',
                    default => '--kind is family or summer.',
                },
            );

            return self::INVALID;
        }
        if (array_diff([$language ?? $otherwise, $otherwise], Language::WRITTEN) !== []) {
            $this->error('--language and --otherwise are among ' . implode(', ', Language::WRITTEN) . '.');

            return self::INVALID;
        }
        if (!in_array($this->option('paper'), ['a4', 'letter'], true)) {
            $this->error('--paper is a4 or letter.');

            return self::INVALID;
        }
        $sections =
            $section !== null
                ? [$section->id]
                : Section::query()
                    ->where('school_id', $school->id)
                    ->where('state', 'open')
                    ->where('kind', 'homeroom')
                    ->pluck('id')
                    ->all();
        try {
            $pdf = $printer->print(
                $school,
                new LetterJob(
                    $kind,
                    new Whom(array_values($sections)),
                    (string) $this->option('paper'),
                    $language,
                    $otherwise,
                    (bool) $this->option('without'),
                ),
                null,
            );
        } catch (Refusal $e) {
            $this->error($e->getMessage());

            return self::INVALID;
        }
        if (@file_put_contents($out, $pdf) === false) {
            $this->error("$out cannot be written. The letters were issued; run this again with another --out.");

            return self::FAILURE;
        }
        chmod($out, 0600);
        $this->info("Wrote $out.");

        return self::SUCCESS;
    }
}
