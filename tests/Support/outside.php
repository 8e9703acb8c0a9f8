<?php

declare(strict_types=1);

use PHPUnit\Framework\Assert;

/**
 * Runs a program from outside the project and gives what it prints. A missing program is a failure: bin/test installs
 * all of them, and a check that quietly does not run checks nothing.
 *
 * @param  list<string>  $command
 */
function outside(array $command, string $input = ''): string
{
    $process = proc_open($command, [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
    Assert::assertIsResource($process, "{$command[0]} cannot be started.");
    fwrite($pipes[0], $input);
    fclose($pipes[0]);
    $out = (string) stream_get_contents($pipes[1]);
    $error = (string) stream_get_contents($pipes[2]);
    $code = proc_close($process);
    Assert::assertSame(0, $code, implode(' ', $command) . " failed: $error");

    return $out;
}

/** A folder of its own for files of one test. */
function scratch(): string
{
    $folder = sys_get_temp_dir() . '/vantrel-test-' . bin2hex(random_bytes(6));
    mkdir($folder, 0700);
    register_shutdown_function(fn() => exec('rm -rf ' . escapeshellarg($folder)));

    return $folder;
}
