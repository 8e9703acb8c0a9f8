<?php

declare(strict_types=1);

namespace App\Accounts;

use Illuminate\Contracts\Session\Session;

/**
 * By which credential a session was opened. It lasts only as long as that credential does, so every session has one.
 */
final readonly class Opened
{
    private const KEY = 'opened_by';

    /**
     * @param  string  $id of the sign-in, badge, identity or room pass
     * @param  string  $stamp of the secret that was typed, '' where none was: another secret is another credential
     * @param  bool  $factor whether a second factor was shown too
     * @param  int  $at UTC seconds
     */
    public function __construct(
        public CredentialWay $way,
        public string $id,
        public string $stamp,
        public bool $factor,
        public int $at,
    ) {}

    public static function of(Session $session): ?self
    {
        $kept = $session->get(self::KEY);
        $way = is_array($kept) ? CredentialWay::tryFrom((string) ($kept['way'] ?? '')) : null;

        return $way === null
            ? null
            : new self($way, (string) $kept['id'], (string) $kept['stamp'], (bool) $kept['factor'], (int) $kept['at']);
    }

    public function keep(Session $session): void
    {
        $session->put(self::KEY, [
            'way' => $this->way->value,
            'id' => $this->id,
            'stamp' => $this->stamp,
            'factor' => $this->factor,
            'at' => $this->at,
        ]);
    }

    /** Names a stored secret without giving it away. */
    public static function stampOf(?string $secret): string
    {
        return $secret === null ? '' : substr(hash_hmac('sha256', $secret, 'session ' . config('app.key')), 0, 24);
    }

    /** The way as the table of sessions keeps it, read from a session's contents. */
    public static function wayIn(string $contents): string
    {
        $values = @unserialize($contents, ['allowed_classes' => false]);

        return is_array($values) ? (string) ($values[self::KEY]['way'] ?? '') : '';
    }
}
