<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;
use Vantrel\Core\Accounts\CredentialKind;

/** One way in that a person has, or one session that is open. */
final readonly class CredentialLine extends Resource
{
    /**
     * @param  string  $id names it when it is to be ended; of a session a key, never its id
     * @param  string  $what in words, such as a user name or a kind of device
     * @param  string|null  $since when it was issued
     * @param  string  $by who issued it, in words; '' where nothing is recorded
     * @param  string  $where from which address and kind of device it was used last, '' for never
     */
    public function __construct(
        public CredentialKind $kind,
        public string $id,
        public string $what,
        public ?string $since,
        public string $by,
        public ?string $lastUsed,
        public string $where,
    ) {}
}
