<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/**
 * A report that a message could not be delivered (RFC 3464): which one, to whom, and why. Only what a machine has
 * written is read, never the sentences beside it: those are of a hundred kinds.
 */
final readonly class Bounce
{
    /**
     * @param  string  $messageId of the message that came back, without its brackets
     * @param  string  $to the address it could not be brought to, '' where the report does not say
     * @param  string  $status enhanced status code (RFC 3463), such as 5.1.1
     * @param  string  $said what the other server said, one line
     */
    private function __construct(
        public string $messageId,
        public string $to,
        public string $status,
        public string $said,
    ) {}

    /**
     * @param  string  $raw a whole message as it came
     * @return self|null null where it reports no failure for good
     */
    public static function read(string $raw): ?self
    {
        $parts = self::parts(str_replace("\r\n", "\n", $raw), 0);
        $report = self::of($parts, '~^message/(global-)?delivery-status~i');
        if ($report === null) {
            return null;
        }
        // Groups of fields: first of the message, then of each receiver.
        foreach (array_slice(preg_split('/\n\s*\n/', trim($report)) ?: [], 1) as $group) {
            $fields = self::fields($group);
            $status = (string) preg_replace('/[^\d.].*$/', '', $fields['status'] ?? '');
            if (strtolower($fields['action'] ?? '') !== 'failed' || !str_starts_with($status, '5')) {
                continue;
            }
            $returned = self::of($parts, '~^(message/(rfc822|global)|text/rfc822-headers|message/global-headers)~i');
            $id = self::fields((string) $returned)['message-id'] ?? '';
            if (preg_match('/<([^<>\s]+)>/', $id, $m) !== 1) {
                return null;
            }

            return new self(
                $m[1],
                // Whom we wrote to; the other one is where a mailbox passed it on to.
                self::value($fields['original-recipient'] ?? ($fields['final-recipient'] ?? '')),
                $status,
                Line::of(self::value($fields['diagnostic-code'] ?? '')),
            );
        }

        return null;
    }

    /** Why, in a sentence for a school office. */
    public function sentence(): string
    {
        return match (true) {
            str_starts_with($this->status, '5.1') => 'There is no such address.',
            str_starts_with($this->status, '5.2.2') => 'The mailbox is full.',
            str_starts_with($this->status, '5.2') => 'The mailbox takes no mail.',
            str_starts_with($this->status, '5.4') => 'Their mail server could not be reached.',
            str_starts_with($this->status, '5.7') => 'Their mail server does not let it in.',
            default => 'It came back.',
        };
    }

    /** A report has three (RFC 3462); more than these are no report. */
    private const MOST_PARTS = 50;

    /**
     * Content type and body of each part, those within others too. A mark between them has at most 70 signs (RFC 2046,
     * 5.1.1).
     *
     * @return list<array{string, string}>
     */
    private static function parts(string $raw, int $depth): array
    {
        [$head, $body] = explode("\n\n", $raw, 2) + [1 => ''];
        $fields = self::fields($head);
        $type = $fields['content-type'] ?? 'text/plain';
        if (
            $depth > 4 ||
            preg_match('~^multipart/~i', $type) !== 1 ||
            preg_match('/boundary\s*=\s*(?:"([^"]{1,70})"|([^\s;"]{1,70})(?=[\s;]|$))/i', $type, $m) !== 1
        ) {
            return [[$type, self::decoded($body, $fields['content-transfer-encoding'] ?? '')]];
        }
        $found = [];
        $mark = preg_quote($m[2] ?? $m[1], '/');
        $body = (string) preg_replace("/^--{$mark}--.*/ms", '', $body);
        foreach (array_slice(preg_split("/^--{$mark}[ \\t]*\$\\n?/m", $body, self::MOST_PARTS) ?: [], 1) as $part) {
            array_push($found, ...self::parts($part, $depth + 1));
        }

        return $found;
    }

    private static function decoded(string $body, string $encoding): string
    {
        return match (strtolower(trim($encoding))) {
            'base64' => (string) base64_decode($body),
            'quoted-printable' => quoted_printable_decode($body),
            default => $body,
        };
    }

    /** @param  list<array{string, string}>  $parts */
    private static function of(array $parts, string $type): ?string
    {
        foreach ($parts as [$is, $body]) {
            if (preg_match($type, $is) === 1) {
                return $body;
            }
        }

        return null;
    }

    /** @return array<string, string> by lower-case name; folded lines are one */
    private static function fields(string $head): array
    {
        $fields = [];
        $lines = explode("\n", (string) preg_replace('/\n[ \t]+/', ' ', ltrim($head, "\n")));
        foreach ($lines as $line) {
            if (trim($line) === '') {
                break;
            }
            if (preg_match('/^([!-9;-~]+):\s*(.*)$/', $line, $m) === 1) {
                $fields[strtolower($m[1])] ??= trim($m[2]);
            }
        }

        return $fields;
    }

    /** What stands behind the type of an address or of a diagnostic: `rfc822; a@b.example`. */
    private static function value(string $field): string
    {
        return trim(str_contains($field, ';') ? explode(';', $field, 2)[1] : $field, " \t<>");
    }
}
