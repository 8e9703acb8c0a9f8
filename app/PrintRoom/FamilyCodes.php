<?php

declare(strict_types=1);

namespace App\PrintRoom;

use Vantrel\Core\Codes\CodeSymbols;

/** How a family code is kept: short enough to be guessed from a plain hash, it is hashed with the server's key. */
final class FamilyCodes
{
    public static function hash(CodeSymbols $code): string
    {
        return hash_hmac('sha256', "family code $code->symbols", (string) config('app.key'));
    }
}
