<?php

declare(strict_types=1);

namespace App\Platform;

use OpenSpout\Common\Entity\Cell;
use OpenSpout\Common\Entity\Row;
use OpenSpout\Common\Entity\Style\Style;
use OpenSpout\Writer\Common\Creator\Style\StyleBuilder;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use RuntimeException;
use Vantrel\Core\Table\TextMark;

/**
 * Writes lists as spreadsheets. Every cell is text and nothing else: what a family typed as a name or an address cannot
 * run when somebody opens the file.
 */
final class SheetOut
{
    /**
     * @param array<string, array{list<string>, iterable<list<string>>, 2?: array<int, array<int, true>>}> $sheets name
     *     to headings, rows, and row's place to places of marked cells
     */
    public static function write(SheetFormat $format, string $path, array $sheets): void
    {
        if ($format === SheetFormat::Csv) {
            self::writeText($path, $sheets);

            return;
        }
        $writer = match ($format) {
            SheetFormat::Xlsx => WriterEntityFactory::createXLSXWriter(),
            SheetFormat::Ods => WriterEntityFactory::createODSWriter(),
        };
        $writer->openToFile($path);
        $bold = (new StyleBuilder())->setFontBold()->build();
        $marked = (new StyleBuilder())->setFontBold()->setFontColor('9C2F2F')->setBackgroundColor('F6E3B8')->build();
        $first = true;
        foreach ($sheets as $name => $sheet) {
            $target = $first ? $writer->getCurrentSheet() : $writer->addNewSheetAndMakeItCurrent();
            $target->setName(self::sheetName((string) $name));
            $first = false;
            $writer->addRow(self::row($sheet[0], $bold));
            $n = 0;
            foreach ($sheet[1] as $cells) {
                $writer->addRow(self::row($cells, null, $sheet[2][$n++] ?? [], $marked));
            }
        }
        $writer->close();
    }

    /**
     * With a mark at its beginning that says UTF-8, which spreadsheets ask for.
     *
     * @param  array<string, array{list<string>, iterable<list<string>>, 2?: array<int, array<int, true>>}>  $sheets
     */
    private static function writeText(string $path, array $sheets): void
    {
        $out = fopen($path, 'w') ?: throw new RuntimeException("$path cannot be written.");
        fwrite($out, "\xEF\xBB\xBF");
        foreach ($sheets as $sheet) {
            fwrite($out, CsvLine::of($sheet[0]));
            foreach ($sheet[1] as $cells) {
                fwrite($out, CsvLine::of(array_map(TextMark::on(...), $cells)));
            }
        }
        fclose($out);
    }

    /**
     * @param  list<string>  $cells
     * @param  array<int, true>  $marks places of marked cells
     */
    private static function row(array $cells, ?Style $style, array $marks = [], ?Style $marked = null): Row
    {
        return new Row(
            array_map(
                function (string $text, int $at) use ($marks, $marked): Cell {
                    $cell = new Cell($text, isset($marks[$at]) ? $marked : null);
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
