<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

/** What waits at several schools, seen as one. */
final readonly class DistrictDesk extends Resource
{
    /**
     * @param  list<DistrictSchool>  $schools by name
     * @param  list<DistrictLoop>  $loops in the order of the work
     * @param  list<DistrictNews>  $news what others have done since one was last at each, newest first, a few
     * @param  int  $more how many entries there are besides
     */
    public function __construct(
        public array $schools,
        public array $loops,
        public int $acrossLookAlikes,
        public array $news,
        public int $more,
    ) {}
}
