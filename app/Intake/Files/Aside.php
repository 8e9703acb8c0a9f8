<?php

declare(strict_types=1);

namespace App\Intake\Files;

use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\PhpExecutableFinder;
use Symfony\Component\Process\Process;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\Sheet;
use Vantrel\Core\Table\UnreadableList;

/**
 * Reads formats whose readers hold the whole file in memory (.xls, spreadsheet XML, PDF) in a process of its own, with
 * limits of its own: a damaged file that makes the reader run on or grow ends that process and nothing else.
 */
final class Aside
{
    private const SECONDS = 18;

    private const MEMORY = '400M';

    private const MAX_BYTES = 12_000_000;

    private const CURES = [
        'xls' => ['The workbook in the old .xls format is damaged, or too large to be read. ', ListFile::SAVE_AS],
        'xml' => ['The spreadsheet is damaged, or too large to be read. ', ListFile::SAVE_AS],
        'pdf' => [
            'No list can be read from this PDF: it is a picture of one, is locked, or is damaged. ',
            'Ask whoever made it for the list as a spreadsheet (.xlsx or .csv), and drop that in.',
        ],
    ];

    /**
     * @param  key-of<self::CURES>  $kind
     * @return non-empty-list<Sheet>
     *
     * @throws UnreadableList
     */
    public static function read(string $path, string $kind): array
    {
        $cannot = new UnreadableList(implode('', self::CURES[$kind]));
        if (filesize($path) > self::MAX_BYTES) {
            throw $cannot;
        }
        // Behind php-fpm PHP_BINARY is the server, not the program that runs commands.
        $process = new Process(
            [
                (new PhpExecutableFinder())->find(false) ?: 'php',
                '-d',
                'memory_limit=' . self::MEMORY,
                // Ends it also where whoever waits for it has been ended.
                '-d',
                'max_execution_time=' . self::SECONDS,
                base_path('artisan'),
                'vantrel:read-aside',
                $path,
                $kind,
            ],
            base_path(),
            null,
            null,
            self::SECONDS,
        );
        try {
            $process->run();
        } catch (ProcessTimedOutException) {
            throw $cannot;
        }
        $read = $process->isSuccessful() ? json_decode($process->getOutput(), true, 8) : null;
        if (!is_array($read)) {
            throw $cannot;
        }
        $sheets = [];
        foreach ($read as ['name' => $name, 'rows' => $rows]) {
            $lines = [];
            foreach ($rows as $number => $cells) {
                $lines[] = new Line((int) $number, array_map(strval(...), array_values($cells)));
            }
            try {
                $sheets[] = new Sheet(
                    (string) $name,
                    Grid::of($lines),
                    '',
                    $kind === 'pdf'
                        ? 'This list was read from a PDF, which has no cells: check the rows closely, and the ' .
                            'columns first.'
                        : '',
                );
            } catch (UnreadableList $e) {
                if (!str_contains($e->getMessage(), 'nothing in this list')) {
                    throw $e;
                }
            }
        }
        if ($sheets === []) {
            throw $cannot;
        }

        return count($sheets) === 1 ? [new Sheet('', $sheets[0]->grid, '', $sheets[0]->check)] : $sheets;
    }
}
