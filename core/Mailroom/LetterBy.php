<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/** How a letter to many reaches those it is for. */
enum LetterBy: string
{
    case Mail = 'mail';
    case Text = 'text';
    /** By mail, and as a text where no mail arrives. */
    case Either = 'either';

    /**
     * @param  bool  $address whether there is a mail address
     * @param  bool  $bounced whether mail to it came back
     * @param  bool  $number whether there is a number
     * @return string|null mail or text; null for whoever cannot be reached so
     */
    public function via(bool $address, bool $bounced, bool $number): ?string
    {
        return match (true) {
            $this === self::Text => $number ? 'text' : null,
            $this === self::Either && $number && (!$address || $bounced) => 'text',
            default => $address ? 'mail' : null,
        };
    }
}
