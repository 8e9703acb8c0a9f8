<?php

declare(strict_types=1);

namespace App\Intake;

use Vantrel\Core\Intake\Leavers;
use Vantrel\Core\Intake\Scope;

/** The words that let a list of everyone go past its trip-wire; '' where none are asked for. */
final class LeavingWords
{
    public static function of(PlannedIntake $planned, ?string $everyone): string
    {
        $leaving = $planned->plan->verdicts()['leaving'] ?? 0;

        return $everyone === null || $leaving === 0 ? '' : Leavers::words($leaving, Scope::read($everyone));
    }
}
