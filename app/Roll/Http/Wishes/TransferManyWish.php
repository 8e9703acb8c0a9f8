<?php

declare(strict_types=1);

namespace App\Roll\Http\Wishes;

use App\Platform\Must;

/** Which students go to which school. */
final readonly class TransferManyWish
{
    /**
     * @param  list<string>  $people
     * @param  string  $to id of a school
     */
    public function __construct(
        #[Must('min:1|max:500', each: 'ulid')] public array $people,
        #[Must('size:26')] public string $to,
    ) {}
}
