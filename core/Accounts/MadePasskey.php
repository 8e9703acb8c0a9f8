<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

/** A passkey as it was made: what is kept of it. There is no secret in it. */
final readonly class MadePasskey
{
    /**
     * @param  string  $credentialId bytes, by which the authenticator knows it
     * @param  string  $publicKey PEM
     * @param  int  $count of answers it has signed, 0 where it does not count
     */
    public function __construct(public string $credentialId, public string $publicKey, public int $count) {}
}
