<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** What inviting would come to, before it is done. */
final readonly class InviteOutlook extends Resource
{
    /**
     * @param  int  $guardians who would get a link
     * @param  int  $children whom these are about
     * @param  string  $leftOut who gets none, and why, in a sentence; '' where nobody is left out
     * @param  array<string, int>  $languages how many are written to in which language
     * @param  int  $days for which a link works
     */
    public function __construct(
        public int $guardians,
        public int $children,
        public string $leftOut,
        public array $languages,
        public int $days,
    ) {}
}
