<?php

declare(strict_types=1);

namespace App\Sections\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\SectionKind;
use Vantrel\Core\Records\SectionState;

final readonly class SectionLine extends Resource
{
    /**
     * @param  int  $signedIn students who have signed in at least once
     * @param  int  $waiting newcomers who wait to be let in
     * @param  int  $clashes times that a student of it is in another section at the same period
     */
    public function __construct(
        public string $id,
        public string $name,
        public SectionKind $kind,
        public ?string $grade,
        public SectionState $state,
        public string $lead,
        public string $period,
        public ?int $seats,
        public int $students,
        public int $signedIn,
        public int $withCard,
        public bool $hasCode,
        public string $year,
        public int $waiting,
        public int $clashes,
    ) {}
}
