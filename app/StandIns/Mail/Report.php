<?php

declare(strict_types=1);

namespace App\StandIns\Mail;

/** A report that a message could not be delivered, as a mail server writes it (RFC 3464). */
final class Report
{
    public static function of(string $raw, string $to, string $from): string
    {
        $mark = 'report-' . bin2hex(random_bytes(8));
        $head = explode("\r\n\r\n", $raw, 2)[0];
        $lines = [
            'From: Mail delivery <postmaster@stand-in.example>',
            "To: <$from>",
            'Subject: Not delivered',
            'Message-ID: <' . bin2hex(random_bytes(12)) . '@stand-in.example>',
            'Auto-Submitted: auto-replied',
            'MIME-Version: 1.0',
            "Content-Type: multipart/report; report-type=delivery-status; boundary=\"$mark\"",
            '',
            "--$mark",
            'Content-Type: text/plain; charset=utf-8',
            '',
            "Your message to <$to> could not be delivered.",
            '',
            "--$mark",
            'Content-Type: message/delivery-status',
            '',
            'Reporting-MTA: dns; stand-in.example',
            '',
            "Final-Recipient: rfc822; $to",
            'Action: failed',
            'Status: 5.1.1',
            'Diagnostic-Code: smtp; 550 5.1.1 The mailbox is gone',
            '',
            "--$mark",
            'Content-Type: text/rfc822-headers',
            '',
            $head,
            '',
            "--$mark--",
        ];

        return implode("\r\n", $lines) . "\r\n";
    }
}
