<?php

declare(strict_types=1);

namespace App\Mailroom;

/** Where messages go from here: as the settings say, or nowhere. */
final class Gateways
{
    /** @param  string  $via mail or text */
    public function take(string $via): bool
    {
        return $this->{$via === 'text' ? 'hasText' : 'hasMail'}();
    }

    private function hasMail(): bool
    {
        return (string) config('vantrel.mail.host') !== '';
    }

    private function hasText(): bool
    {
        return (string) config('vantrel.texts.url') !== '';
    }
}
