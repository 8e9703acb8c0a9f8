<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\GradeChoice;
use App\Platform\Resource;

/** A school the person can work in. */
final readonly class SchoolChoice extends Resource
{
    /**
     * @param  list<GradeChoice>  $grades from the lowest
     * @param  list<YearChoice>  $years newest first
     */
    public function __construct(
        public string $id,
        public string $code,
        public string $name,
        public string $yearId,
        public string $year,
        public bool $coordinates,
        public int $lowestGrade,
        public int $highestGrade,
        public array $grades,
        public array $years,
    ) {}
}
