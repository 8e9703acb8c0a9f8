<?php

declare(strict_types=1);

namespace App\PrintRoom;

use Vantrel\Core\PrintRoom\CardFace;
use Vantrel\Core\PrintRoom\FaceLine;

/** A card as it will stand on paper. */
final readonly class SetCard
{
    /** @param  list<array{FaceLine, string, float, float}>  $lines where, what, its size in points, its top in mm */
    public function __construct(public CardFace $face, public array $lines) {}
}
