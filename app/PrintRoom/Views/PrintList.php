<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;

/** What somebody printed in the last day. */
final readonly class PrintList extends Resource
{
    /** @param  list<PrintView>  $prints the latest first */
    public function __construct(public array $prints) {}
}
