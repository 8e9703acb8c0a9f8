<?php

declare(strict_types=1);

namespace App\Intake\Commands;

use App\Intake\Files\PdfTable;
use Illuminate\Console\Command;
use PhpOffice\PhpSpreadsheet\Cell\Cell;
use PhpOffice\PhpSpreadsheet\Reader\Xls;
use PhpOffice\PhpSpreadsheet\Reader\Xml;
use PhpOffice\PhpSpreadsheet\Shared\Date;
use Throwable;
use Vantrel\Core\Table\Grid;

/**
 * Reads one file of a format that is read in a process of its own, and prints its sheets as JSON. Called by the product
 * only.
 */
final class ReadAsideCommand extends Command
{
    protected $signature = 'vantrel:read-aside {file} {kind : xls, xml or pdf}';

    protected $description = 'Read a list in a process of its own (used by the product itself)';

    protected $hidden = true;

    public function handle(): int
    {
        $file = (string) $this->argument('file');
        try {
            $sheets = match ($this->argument('kind')) {
                'xls' => self::spreadsheet(new Xls(), $file),
                'xml' => self::spreadsheet(new Xml(), $file),
                'pdf' => [['name' => '', 'rows' => PdfTable::rows($file)]],
                default => null,
            };
            if ($sheets === null) {
                return self::INVALID;
            }
            $this->output->writeln(
                (string) json_encode(
                    $sheets,
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE,
                ),
                \Symfony\Component\Console\Output\OutputInterface::OUTPUT_RAW,
            );

            return self::SUCCESS;
        } catch (Throwable) {
            // Whatever it is, the caller has the sentence for it.
            return self::FAILURE;
        }
    }

    /** @return list<array{name: string, rows: array<int, list<string>>}> */
    private static function spreadsheet(Xls|Xml $reader, string $file): array
    {
        $reader->setReadEmptyCells(false);
        $book = $reader->load($file);
        $sheets = [];
        foreach ($book->getWorksheetIterator() as $sheet) {
            if ($sheet->getSheetState() !== 'visible') {
                continue;
            }
            $rows = [];
            foreach ($sheet->getRowIterator() as $number => $row) {
                if (count($rows) > Grid::MAX_ROWS) {
                    break;
                }
                $cells = [];
                $iterator = $row->getCellIterator();
                $iterator->setIterateOnlyExistingCells(false);
                foreach ($iterator as $cell) {
                    $cells[] = self::text($cell);
                }
                if (implode('', $cells) !== '') {
                    $rows[$number] = $cells;
                }
            }
            $sheets[] = ['name' => $sheet->getTitle(), 'rows' => $rows];
        }

        return $sheets;
    }

    private static function text(Cell $cell): string
    {
        // The value that was stored with a formula, never one worked out here.
        $value = $cell->isFormula() ? $cell->getOldCalculatedValue() : $cell->getValue();
        if (is_float($value) || is_int($value)) {
            if (Date::isDateTime($cell)) {
                return Date::excelToDateTimeObject($value)->format('Y-m-d');
            }

            return $value == floor($value) && abs($value) < 1e15 ? sprintf('%.0f', $value) : (string) $value;
        }

        return is_scalar($value) || $value instanceof \Stringable ? (string) $value : '';
    }
}
