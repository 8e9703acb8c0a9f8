<?php

declare(strict_types=1);

namespace App\Roll\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Roll\ManyKind;

/** What is done with which students. */
final readonly class ChangeManyWish
{
    /**
     * @param  list<string>  $people
     * @param  string  $language code, '' for none
     */
    public function __construct(
        public ManyKind $what,
        #[Must('min:1|max:2000', each: 'ulid')] public array $people,
        #[Must('max:20')] public string $grade = '',
        #[Must('max:12')] public string $language = '',
        public ?NameShown $shown = null,
    ) {}
}
