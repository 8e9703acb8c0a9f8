<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

final readonly class LetterTemplatePage extends Resource
{
    /** @param  list<LetterTemplateLine>  $templates by name: the school’s and one’s own */
    public function __construct(public array $templates) {}
}
