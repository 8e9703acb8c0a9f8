<?php

declare(strict_types=1);

namespace App\StandIns\Mail;

/** The mailbox that returned mail comes to (RFC 1939); any name and password opens it. */
final class PopTalk implements Talk
{
    /** @var list<string> files, as they were when the talk began */
    private array $files;

    /** @var array<int, true> numbers to delete at the end */
    private array $gone = [];

    private bool $over = false;

    public function __construct(Folder $folder)
    {
        $this->files = $folder->returned();
    }

    public function greeting(): string
    {
        return "+OK stand-in\r\n";
    }

    public function isOver(): bool
    {
        return $this->over;
    }

    public function take(string &$came): string
    {
        $answers = '';
        while (!$this->over && ($end = strpos($came, "\r\n")) !== false) {
            [$line, $came] = [substr($came, 0, $end), substr($came, $end + 2)];
            $answers .= $this->command($line);
        }

        return $answers;
    }

    private function command(string $line): string
    {
        [$verb, $rest] = explode(' ', trim($line), 2) + [1 => ''];
        $file = $this->files[(int) $rest - 1] ?? null;
        switch (strtoupper($verb)) {
            case 'USER':
            case 'PASS':
            case 'NOOP':
                return "+OK\r\n";
            case 'STAT':
                return '+OK ' . count($this->files) . ' ' . array_sum(array_map(filesize(...), $this->files)) . "\r\n";
            case 'UIDL':
                $lines = array_map(
                    fn(int $n, string $file): string => $n + 1 . ' ' . basename($file) . "\r\n",
                    array_keys($this->files),
                    $this->files,
                );
                return "+OK\r\n" . implode('', $lines) . ".\r\n";
            case 'RETR':
                if ($file === null) {
                    return "-ERR no such message\r\n";
                }
                $raw = rtrim((string) file_get_contents($file), "\r\n");
                return "+OK\r\n" . preg_replace('/^\./m', '..', $raw) . "\r\n.\r\n";
            case 'DELE':
                $this->gone[(int) $rest - 1] = true;
                return "+OK\r\n";
            case 'QUIT':
                array_map(fn(int $n): bool => @unlink($this->files[$n] ?? ''), array_keys($this->gone));
                $this->over = true;
                return "+OK goodbye\r\n";
            default:
                return "-ERR not understood\r\n";
        }
    }
}
