<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** What one school asks of another about a student of the other. */
enum TransferKind: string
{
    /** The student is ours from now on. */
    case Transfer = 'transfer';
    /** The student stays there and comes into sections of ours too. */
    case Also = 'also';

    /** @param  string  $school the one that is asked */
    public function wish(string $school): string
    {
        return $this === self::Transfer ? "Ask $school for a transfer" : "Ask $school to let the student come here too";
    }
}
