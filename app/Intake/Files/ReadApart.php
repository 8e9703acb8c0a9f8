<?php

declare(strict_types=1);

namespace App\Intake\Files;

use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\PhpExecutableFinder;
use Symfony\Component\Process\Process;
use Vantrel\Core\Table\UnreadableList;

/**
 * Takes a kept list apart in a process of its own, bounded by seconds and memory: whatever somebody sends ends that
 * process at most. It leaves the cells, or why there are none, beside the list.
 */
final class ReadApart
{
    /** Within a request: a usual list is read by then. What takes longer is left to the worker. */
    public const AT_ONCE = 4;

    /** By the worker: what takes longer than that is not read at all. */
    public const AT_MOST = 60;

    private const MEMORY = '400M';

    /** @return bool false where it took longer than that */
    public static function keep(string $path, string $title, string $school, string $code, int $seconds): bool
    {
        $process = new Process(
            [
                (new PhpExecutableFinder())->find(false) ?: 'php',
                '-d',
                'memory_limit=' . self::MEMORY,
                // Ends it also where whoever waits for it has been ended.
                '-d',
                "max_execution_time=$seconds",
                base_path('artisan'),
                'vantrel:read-list',
                $path,
                $title,
                $school,
                $code,
            ],
            base_path(),
            timeout: $seconds,
        );
        try {
            $process->run();
        } catch (ProcessTimedOutException) {
            return false;
        }

        return true;
    }

    /** Where the process ended without a word, or took too long. */
    public static function cannot(): UnreadableList
    {
        return new UnreadableList(
            'This takes longer to read, or more memory, than the largest list needs. Copy the rows of the list into ' .
                'a new workbook, save that and drop it in.',
        );
    }
}
