<?php

declare(strict_types=1);

namespace App\StandIns\Mail;

/**
 * Where the stand-in keeps what it has been given: `mail/` one file a Message-ID, however often it came; `texts/` one a
 * key; `returned/` reports of mail that could not be delivered; and `deliveries.log`, a line each time something came.
 */
final readonly class Folder
{
    public function __construct(private string $path)
    {
        foreach (['mail', 'texts', 'returned'] as $part) {
            if (!is_dir("$path/$part")) {
                mkdir("$path/$part", 0700, true);
            }
        }
    }

    public function keepMail(string $raw, string $to): void
    {
        preg_match('/^Message-ID:\s*<([^<>\s]+)>/mi', explode("\r\n\r\n", $raw, 2)[0], $m);
        $id = $m[1] ?? sha1($raw);
        $this->note("mail $id $to");
        file_put_contents($this->file('mail', $id, 'eml'), $raw);
    }

    public function keepText(string $id, string $json): void
    {
        $this->note("text $id");
        file_put_contents($this->file('texts', $id, 'json'), $json);
    }

    public function keepReturned(string $raw): void
    {
        file_put_contents($this->path . '/returned/' . hrtime(true) . '-' . bin2hex(random_bytes(4)) . '.eml', $raw);
    }

    /** @return list<string> files, oldest first */
    public function returned(): array
    {
        $files = glob("$this->path/returned/*.eml") ?: [];
        sort($files);

        return $files;
    }

    private function file(string $part, string $id, string $kind): string
    {
        return "$this->path/$part/" . preg_replace('/[^A-Za-z0-9.@_-]/', '_', substr($id, 0, 120)) . ".$kind";
    }

    private function note(string $line): void
    {
        file_put_contents("$this->path/deliveries.log", "$line\n", FILE_APPEND);
    }
}
