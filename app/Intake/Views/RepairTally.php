<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;
use Vantrel\Core\Plan\Plan;

/** How many cells of a column were read otherwise than they are written, and in which way. */
final readonly class RepairTally extends Resource
{
    /** @param  string  $key by which the whole column is kept as it is written */
    public function __construct(
        public string $key,
        public string $column,
        public string $kind,
        public int $count,
        public string $before,
        public string $after,
    ) {}

    /** @return list<self> */
    public static function all(Plan $plan): array
    {
        $found = [];
        foreach ($plan->rows as $row) {
            foreach ($row->repairs as $repair) {
                $known = $found["$repair->columnKey $repair->kind"] ?? null;
                $found["$repair->columnKey $repair->kind"] = new self(
                    $repair->columnKey,
                    $repair->column,
                    $repair->kind,
                    ($known->count ?? 0) + 1,
                    $known->before ?? $repair->before,
                    $known->after ?? $repair->after,
                );
            }
        }

        return array_values($found);
    }
}
