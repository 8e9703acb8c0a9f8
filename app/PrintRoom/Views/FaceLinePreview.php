<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;
use Vantrel\Core\PrintRoom\FaceText;

/** A line of a card: where it stands in mm, and its size in points. */
final readonly class FaceLinePreview extends Resource
{
    public function __construct(
        public FaceText $what,
        public float $x,
        public float $y,
        public float $width,
        public float $size,
    ) {}
}
