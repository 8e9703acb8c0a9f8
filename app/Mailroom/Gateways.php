<?php

declare(strict_types=1);

namespace App\Mailroom;

/** Where messages go from here: as the settings say, or nowhere. */
final class Gateways
{
    /** @param  string  $via mail or text */
    public function take(string $via): bool
    {
        return (string) config($via === 'text' ? 'vantrel.texts.url' : 'vantrel.mail.host') !== '';
    }
}
