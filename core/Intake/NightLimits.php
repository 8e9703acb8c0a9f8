<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Verdict;

/** What a list may do with nobody looking. */
final readonly class NightLimits
{
    public function __construct(public int $mostNew, public int $mostChanged) {}

    /** Why somebody has to look first; '' where nobody has to. */
    public function exceeded(Plan $plan): string
    {
        $new = self::count($plan, Verdict::New);
        $changed = self::count($plan, Verdict::Update);

        return $new > $this->mostNew || $changed > $this->mostChanged
            ? "$new new and $changed changed are more than a night may bring ($this->mostNew and " .
                    "$this->mostChanged). The list waits in Intake until somebody has looked."
            : '';
    }

    /** Whether rows are left that a person has to answer or mend. */
    public static function leaves(Plan $plan): bool
    {
        return self::count($plan, Verdict::Ask) + self::count($plan, Verdict::Cannot) > 0;
    }

    private static function count(Plan $plan, Verdict $verdict): int
    {
        return count(array_filter($plan->rows, fn(PlanRow $r): bool => $r->verdict === $verdict));
    }
}
