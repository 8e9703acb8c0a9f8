<?php

declare(strict_types=1);

namespace App\PrintRoom\Commands;

use App\Models\School;
use App\Models\Section;
use App\PrintRoom\CardJob;
use App\PrintRoom\CardPrinter;
use App\PrintRoom\Whom;
use Illuminate\Console\Command;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;
use Vantrel\Core\PrintRoom\Paper;

final class CardsCommand extends Command
{
    protected $signature =
        'vantrel:cards {--section= : id of one section} {--school= : code of a school, for all its open ' .
        'homerooms} {--layout=cards-a4 : one of those docs/formats.md lists} ' .
        '{--order=reading : reading or cut_stack} ' .
        '{--shorten : a letter for family names that do not fit} {--out= : the PDF to write}';

    protected $description = 'Print login cards into a PDF';

    public function handle(CardPrinter $printer): int
    {
        $out = (string) $this->option('out');
        $section = $this->option('section') === null ? null : Section::query()->find($this->option('section'));
        $school =
            $section !== null
                ? School::query()->find($section->school_id)
                : School::query()->where('code', (string) $this->option('school'))->first();
        $order = CardOrder::tryFrom((string) $this->option('order'));
        $layout = CardLayout::tryFrom((string) $this->option('layout'));
        if ($out === '' || $school === null || $order === null || $layout === null || $layout === CardLayout::Own) {
            $this->error(
                match (true) {
                    $out === '' => 'Say where the PDF goes: --out=FILE.pdf',
                    $order === null => '--order is reading or cut_stack.',
                    $layout === null || $layout === CardLayout::Own => '--layout is one of ' .
                        implode(', ', self::layouts()) .
                        '.',
                    default => 'No such section or school. Give --section=ID or --school=CODE.',
                },
            );

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
                new CardJob(
                    new Whom(array_values($sections)),
                    Paper::of($layout, $order),
                    shorten: (bool) $this->option('shorten'),
                ),
                null,
            );
        } catch (Refusal $e) {
            $this->error($e->getMessage());

            return self::INVALID;
        }
        if (@file_put_contents($out, $pdf) === false) {
            $this->error("$out cannot be written. The cards were issued; run this again with another --out.");

            return self::FAILURE;
        }
        chmod($out, 0600);
        $this->info("Wrote $out.");

        return self::SUCCESS;
    }

    /** @return list<string> */
    private static function layouts(): array
    {
        return array_values(
            array_diff(array_map(fn(CardLayout $l): string => $l->value, CardLayout::cases()), [
                CardLayout::Own->value,
            ]),
        );
    }
}
