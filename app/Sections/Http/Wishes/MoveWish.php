<?php

declare(strict_types=1);

namespace App\Sections\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Sections\MoveKind;

/** Which students move, come in besides, or are taken out; where to, and from which day. */
final readonly class MoveWish
{
    /** @param  list<string>  $people */
    public function __construct(
        public MoveKind $kind,
        #[Must('min:1|max:2000', each: 'ulid')] public array $people,
        #[Must('ulid')] public ?string $to = null,
        #[Must('date_format:Y-m-d')] public ?string $day = null,
    ) {}
}
