<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;
use Vantrel\Core\PrintRoom\CardLayout;

/** A layout that cards can be printed in. */
final readonly class LayoutChoice extends Resource
{
    public function __construct(public CardLayout $layout, public string $label) {}
}
