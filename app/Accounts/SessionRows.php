<?php

declare(strict_types=1);

namespace App\Accounts;

use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Session\DatabaseSessionHandler;
use Illuminate\Support\Facades\Crypt;
use Vantrel\Core\Accounts\Lifetime;

/**
 * Sessions in the database, encrypted with the application's key, and written only where something in them has changed.
 * Most requests change nothing: that is one statement and one wait for the disk less for each. What is in a session
 * changes at least once a minute while it is used ({@see \App\Accounts\KeepSession}), so the time it was last used is
 * never further off than that.
 */
final class SessionRows extends DatabaseSessionHandler
{
    /** In the session: UTC seconds until which it stays, or absent. */
    public const UNTIL = 'stay_until';

    /** @var array<string, string> id to the contents as they were read */
    private array $read = [];

    public function read($sessionId): string
    {
        $payload = parent::read($sessionId);
        try {
            $plain = is_string($payload) && $payload !== '' ? Crypt::decryptString($payload) : '';
        } catch (DecryptException) {
            $plain = '';
        }

        return $this->read[$sessionId] = $plain;
    }

    public function write($sessionId, $data): bool
    {
        if ($data !== '' && ($this->read[$sessionId] ?? '') === $data) {
            return true;
        }
        $this->read[$sessionId] = $data;

        return parent::write($sessionId, $data);
    }

    /** @param  int  $lifetime seconds of the longest that stay */
    public function gc($lifetime): int
    {
        return parent::gc($lifetime) +
            $this->getQuery()
                ->where('stays', false)
                ->where('last_activity', '<=', $this->currentTime() - Lifetime::Idle->value)
                ->delete();
    }

    public function destroy($sessionId): bool
    {
        unset($this->read[$sessionId]);

        return parent::destroy($sessionId);
    }

    /** @return array<string, mixed> */
    protected function getDefaultPayload($data): array
    {
        $plain = (string) $data;

        return [
            ...parent::getDefaultPayload($data),
            'payload' => base64_encode(Crypt::encryptString($plain)),
            'stays' => str_contains($plain, self::UNTIL),
            'way' => Opened::wayIn($plain),
        ];
    }
}
