<?php

declare(strict_types=1);

namespace App\Platform;

use OpenSpout\Common\Entity\Cell;
use OpenSpout\Common\Entity\Row;
use OpenSpout\Common\Entity\Style\Style;
use OpenSpout\Writer\Common\Creator\Style\StyleBuilder;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use OpenSpout\Writer\WriterMultiSheetsAbstract;

/**
 * Writes lists as spreadsheets. Every cell is text and nothing else: what a family typed as a name or an address cannot
 * run when somebody opens the file.
 */
final class SheetOut
{
    /**
     * A cell that begins so would be taken for a formula where it is not marked as text; some programs read the wide
     * forms alike.
     */
    private const RUNS = '/^[\s\x00-\x1F\p{Cf}]*[=+\-@|%＝＋－＠﹢﹣﹦﹫−]/u';

    /**
     * @param array<string, array{list<string>, iterable<list<string>>, 2?: array<int, array<int, true>>}> $sheets name
     *     to headings, rows, and row's place to places of marked cells
     */
    public static function write(SheetFormat $format, string $path, array $sheets): void
    {
        $writer = match ($format) {
            SheetFormat::Csv => WriterEntityFactory::createCSVWriter(),
            SheetFormat::Xlsx => WriterEntityFactory::createXLSXWriter(),
            SheetFormat::Ods => WriterEntityFactory::createODSWriter(),
        };
        $writer->openToFile($path);
        $bold = (new StyleBuilder())->setFontBold()->build();
        $marked = (new StyleBuilder())->setFontBold()->setFontColor('9C2F2F')->setBackgroundColor('F6E3B8')->build();
        $first = true;
        foreach ($sheets as $name => $sheet) {
            if ($writer instanceof WriterMultiSheetsAbstract) {
                $target = $first ? $writer->getCurrentSheet() : $writer->addNewSheetAndMakeItCurrent();
                $target->setName(self::sheetName((string) $name));
            }
            $first = false;
            $writer->addRow(self::row($sheet[0], $format, $bold));
            $n = 0;
            foreach ($sheet[1] as $cells) {
                $writer->addRow(self::row($cells, $format, null, $sheet[2][$n++] ?? [], $marked));
            }
        }
        $writer->close();
    }

    /**
     * @param  list<string>  $cells
     * @param  array<int, true>  $marks places of marked cells
     */
    private static function row(
        array $cells,
        SheetFormat $format,
        ?Style $style,
        array $marks = [],
        ?Style $marked = null,
    ): Row {
        return new Row(
            array_map(
                function (string $text, int $at) use ($format, $marks, $marked): Cell {
                    // In text formats an apostrophe is all there is to say "this is text"; it is taken off when the
                    // list comes back.
                    $cell = new Cell(
                        $format === SheetFormat::Csv && preg_match(self::RUNS, $text) === 1 ? "'$text" : $text,
                        isset($marks[$at]) ? $marked : null,
                    );
                    $cell->setType(Cell::TYPE_STRING);

                    return $cell;
                },
                $cells,
                array_keys($cells),
            ),
            $style,
        );
    }

    private static function sheetName(string $name): string
    {
        $name = trim((string) preg_replace('/[\\\\\/?*:\[\]\']+/u', ' ', $name));

        return mb_substr($name === '' ? 'List' : $name, 0, 31);
    }
}
