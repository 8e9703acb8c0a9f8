<?php

declare(strict_types=1);

namespace App\Sections;

use App\Platform\Resource;

final readonly class RequestPage extends Resource
{
    /** @param  list<RequestLine>  $requests oldest first */
    public function __construct(public array $requests)
    {
    }
}
