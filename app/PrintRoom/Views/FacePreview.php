<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;

/** What stands where on a card, in mm from its top left corner. */
final readonly class FacePreview extends Resource
{
    /** @param  list<FaceLinePreview>  $lines */
    public function __construct(
        public float $squareX,
        public float $squareY,
        public float $square,
        public array $lines,
    ) {}
}
