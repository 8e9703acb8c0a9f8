<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;

/** What stands where on a card, in mm from its top left corner; a square of 0 is none. */
final readonly class FacePreview extends Resource
{
    /** @param  list<FaceLinePreview>  $lines */
    public function __construct(
        public float $squareX,
        public float $squareY,
        public float $square,
        public ?float $picturesX,
        public ?float $picturesY,
        public array $lines,
    ) {}
}
