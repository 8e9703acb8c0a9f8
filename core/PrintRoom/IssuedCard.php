<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Vantrel\Core\Codes\Token;

/** The secrets of one card about to be printed. They live only as long as the printing does. */
final readonly class IssuedCard
{
    /**
     * @param string|null $passphrase a fresh one, or null where the sign-in keeps the one it has (or has an own
     *     password)
     */
    public function __construct(public string $signInId, public ?string $passphrase, public Token $badge) {}
}
