<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/** Requests between schools. */
final readonly class TransferPage extends Resource
{
    /**
     * @param  list<TransferLine>  $requests those that wait first, then newest first
     * @param  string  $said what has just been done, '' for nothing
     */
    public function __construct(public array $requests, public string $said) {}
}
