<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;
use App\PrintRoom\WallKind;

/** What is printed of a section's code. */
final readonly class WallWish
{
    /**
     * @param  list<string>  $languages of handouts, one page each
     * @param  int  $copies of slips, for each section
     * @param  bool  $without whether our words stand where the school's own are missing in a language
     */
    public function __construct(
        public WallKind $kind,
        #[Must('in:a4,letter')] public string $paper = 'a4',
        #[Must('max:7', each: 'in:en,es,fr,ar,vi,uk,zh')] public array $languages = ['en'],
        #[Must('min:1|max:60')] public int $copies = 30,
        public bool $without = false,
    ) {}
}
