<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

final readonly class RequestPage extends Resource
{
    /**
     * @param  list<RequestLine>  $requests oldest first
     * @param  string  $said what has just been done, in a sentence; '' for nothing
     */
    public function __construct(public array $requests, public string $said) {}
}
