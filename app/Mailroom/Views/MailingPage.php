<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

final readonly class MailingPage extends Resource
{
    /**
     * @param  list<MailingLine>  $mailings newest first
     * @param  string  $said what has just been done, in a sentence
     */
    public function __construct(public array $mailings, public string $said) {}
}
