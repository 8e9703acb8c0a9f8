<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

final readonly class NoticePage extends Resource
{
    /**
     * @param  list<NoticeLine>  $notices newest first
     * @param  string  $said what has just been done, in a sentence
     */
    public function __construct(public array $notices, public string $said) {}
}
