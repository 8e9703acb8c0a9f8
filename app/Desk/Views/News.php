<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

/** What others have done since somebody read it last. */
final readonly class News extends Resource
{
    /**
     * @param  string|null  $since when that was; null where it never was
     * @param  list<NewsLine>  $lines the newest, a few
     * @param  int  $more how many entries there are besides
     */
    public function __construct(public ?string $since, public array $lines, public int $more) {}
}
