<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Refusal;

/**
 * What somebody on the staff has besides a password. While there is an app or a passkey the password alone lets nobody
 * in; recovery codes by themselves are no second factor, and go with the last of the two.
 */
final readonly class FactorSet
{
    /** Passkeys of one person. Common practice, no source. */
    private const MOST_PASSKEYS = 10;

    /** @param  int  $passkeys how many */
    public function __construct(public bool $app, public int $passkeys) {}

    public function isOn(): bool
    {
        return $this->app || $this->passkeys > 0;
    }

    /** @throws Refusal */
    public function mustHaveRoom(): void
    {
        if ($this->passkeys >= self::MOST_PASSKEYS) {
            throw new Refusal('You have ten passkeys. Remove one you do not use any more.');
        }
    }

    public function withoutApp(): self
    {
        return new self(false, $this->passkeys);
    }

    public function withoutPasskey(): self
    {
        return new self($this->app, max(0, $this->passkeys - 1));
    }

    /**
     * What its owner may leave themselves with.
     *
     * @param  bool  $asked whether a school they work in asks for a second factor
     *
     * @throws Refusal
     */
    public function mustDo(bool $asked): void
    {
        if ($asked && !$this->isOn()) {
            throw new Refusal(
                'Your school asks for a second factor. Set up another one first: an app for codes or a passkey.',
            );
        }
    }
}
