<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;
use Vantrel\Core\Intake\PicturedRow;

/** Rows of a sheet as they came, with what was made of them. */
final readonly class SheetPage extends Resource
{
    /**
     * @param  list<SheetName>  $sheets all of the list's
     * @param  list<PicturedRow>  $rows
     * @param  int|null  $next rows that are passed over for the next page, null at the end
     */
    public function __construct(public array $sheets, public array $rows, public ?int $next) {}
}
