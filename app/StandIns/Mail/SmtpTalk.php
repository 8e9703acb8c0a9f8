<?php

declare(strict_types=1);

namespace App\StandIns\Mail;

/**
 * A mail server as a sender sees it (RFC 5321, with 8BITMIME, SMTPUTF8, SIZE and PIPELINING; RFC 4954). What it does
 * with a message goes by the address: `refused…@` does not exist, `busy…@` is always for later, `bounce…@` is taken and
 * comes back, `slow…@` is taken after a while; from `locked…@` it takes nothing of whoever has not signed in. Nobody
 * whose name begins with `refused` is let in.
 */
final class SmtpTalk implements Talk
{
    private const MOST = 10_485_760;

    /** Microseconds. */
    private const SLOW = 600_000;

    private string $from = '';

    /** @var list<string> */
    private array $to = [];

    private bool $inData = false;

    private bool $over = false;

    private bool $signedIn = false;

    public function __construct(private readonly Folder $folder) {}

    public function greeting(): string
    {
        return "220 stand-in ready\r\n";
    }

    public function isOver(): bool
    {
        return $this->over;
    }

    public function take(string &$came): string
    {
        $answers = '';
        while (!$this->over) {
            $end = strpos($came, $this->inData ? "\r\n.\r\n" : "\r\n");
            if ($this->inData && str_starts_with($came, ".\r\n")) {
                [$part, $came] = ['', substr($came, 3)];
            } elseif ($end === false) {
                if (strlen($came) > self::MOST) {
                    $this->over = true;

                    return $answers . "552 5.3.4 Too long\r\n";
                }

                return $answers;
            } else {
                [$part, $came] = [substr($came, 0, $end), substr($came, $end + ($this->inData ? 5 : 2))];
            }
            $answers .= $this->inData ? $this->message($part) : $this->command($part);
        }

        return $answers;
    }

    private function command(string $line): string
    {
        [$verb, $rest] = explode(' ', trim($line), 2) + [1 => ''];
        switch (strtoupper($verb)) {
            case 'EHLO':
                $this->reset();
                return "250-stand-in\r\n250-PIPELINING\r\n250-8BITMIME\r\n250-SMTPUTF8\r\n250-ENHANCEDSTATUSCODES\r\n" .
                    "250-AUTH PLAIN\r\n250 SIZE " .
                    self::MOST .
                    "\r\n";
            case 'HELO':
                $this->reset();
                return "250 stand-in\r\n";
            case 'AUTH':
                // RFC 4616: nothing, the name and the password, each behind a NUL.
                $name = explode("\0", (string) base64_decode(substr($rest, 6)))[1] ?? '';
                $this->signedIn = $name !== '' && !str_starts_with($name, 'refused');
                return $this->signedIn ? "235 2.7.0 Come in\r\n" : "535 5.7.8 Not with that\r\n";
            case 'MAIL':
                if (preg_match('/^FROM:<([^<>]*)>/i', $rest, $m) !== 1) {
                    return "501 5.5.4 MAIL FROM:<address>\r\n";
                }
                if (str_starts_with($m[1], 'locked') && !$this->signedIn) {
                    return "530 5.7.0 Sign in first\r\n";
                }
                $this->reset();
                $this->from = $m[1];
                return "250 2.1.0 Fine\r\n";
            case 'RCPT':
                return $this->receiver($rest);
            case 'DATA':
                if ($this->to === []) {
                    return "503 5.5.1 To whom?\r\n";
                }
                $this->inData = true;
                return "354 Go on\r\n";
            case 'RSET':
                $this->reset();
                return "250 2.0.0 Forgotten\r\n";
            case 'NOOP':
                return "250 2.0.0 Here\r\n";
            case 'QUIT':
                $this->over = true;
                return "221 2.0.0 Goodbye\r\n";
            default:
                return "502 5.5.1 Not understood\r\n";
        }
    }

    private function receiver(string $rest): string
    {
        if (preg_match('/^TO:<([^<>\s]+@[^<>\s]+)>/i', $rest, $m) !== 1) {
            return "501 5.1.3 RCPT TO:<address>\r\n";
        }
        if (str_starts_with($m[1], 'refused')) {
            return "550 5.1.1 No such mailbox here\r\n";
        }
        if (str_starts_with($m[1], 'busy')) {
            return "451 4.3.2 Busy, come back later\r\n";
        }
        $this->to[] = $m[1];

        return "250 2.1.5 Fine\r\n";
    }

    private function message(string $data): string
    {
        $raw = (string) preg_replace('/^\.\./m', '.', $data) . "\r\n";
        foreach ($this->to as $to) {
            if (str_starts_with($to, 'slow')) {
                usleep(self::SLOW);
            }
            $this->folder->keepMail($raw, $to);
            if (str_starts_with($to, 'bounce') && $this->from !== '') {
                $this->folder->keepReturned(Report::of($raw, $to, $this->from));
            }
        }
        $this->reset();

        return "250 2.0.0 Taken\r\n";
    }

    private function reset(): void
    {
        $this->from = '';
        $this->to = [];
        $this->inData = false;
    }
}
