<?php

declare(strict_types=1);

namespace App\CommandBox\Views;

use App\Platform\Resource;

final readonly class OfferPage extends Resource
{
    /** @param  list<Offer>  $offers the likeliest first; none where nothing was said that can be done */
    public function __construct(public array $offers) {}
}
