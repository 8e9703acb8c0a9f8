<?php

declare(strict_types=1);

namespace App\Sections\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Sections\MoveKind;

/** Which students of the school come into a section, and from which day. */
final readonly class PlaceWish
{
    /** @param  list<string>  $people */
    public function __construct(
        #[Must('min:1|max:2000', each: 'ulid')] public array $people,
        #[Must('ulid')] public string $to,
        #[Must('date_format:Y-m-d')] public ?string $day = null,
        #[Must('in:also,instead')] public MoveKind $kind = MoveKind::Also,
    ) {}
}
