<?php

declare(strict_types=1);

namespace App\StandIns\Mail;

/**
 * A gateway for text messages: takes `{id, to, text}` over HTTP. Numbers that end in 0199 do not exist; whoever has a
 * key that begins with `refused` is not let in.
 */
final class TextTalk implements Talk
{
    private bool $over = false;

    public function __construct(private readonly Folder $folder) {}

    public function greeting(): string
    {
        return '';
    }

    public function isOver(): bool
    {
        return $this->over;
    }

    public function take(string &$came): string
    {
        $end = strpos($came, "\r\n\r\n");
        if ($end === false) {
            return '';
        }
        preg_match('/^Content-Length:\s*(\d+)/mi', substr($came, 0, $end), $m);
        $body = substr($came, $end + 4);
        if (strlen($body) < (int) ($m[1] ?? 0)) {
            return '';
        }
        $this->over = true;
        if (preg_match('/^Authorization: Bearer refused/mi', substr($came, 0, $end)) === 1) {
            return self::said('401 Unauthorized', ['error' => 'that key is not known']);
        }
        $wish = json_decode($body, true);
        if (!is_array($wish) || !is_string($wish['id'] ?? null) || !is_string($wish['to'] ?? null)) {
            return self::said('400 Bad Request', ['error' => 'id, to and text are needed']);
        }
        if (str_ends_with($wish['to'], '0199')) {
            return self::said('422 Unprocessable Content', ['error' => 'that number does not exist']);
        }
        $this->folder->keepText($wish['id'], $body);

        return self::said('202 Accepted', ['id' => $wish['id']]);
    }

    /** @param  array<string, string>  $body */
    private static function said(string $status, array $body): string
    {
        $json = json_encode($body, JSON_THROW_ON_ERROR);

        return "HTTP/1.1 $status\r\nContent-Type: application/json\r\nConnection: close\r\nContent-Length: " .
            strlen($json) .
            "\r\n\r\n$json";
    }
}
