<?php

declare(strict_types=1);

namespace App\Platform;

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\StalePlan;

/** That a plan is to be applied as it was looked at: what it was made from, and its fingerprint. */
final readonly class AsSeen
{
    public function __construct(
        #[Must('size:64')] public string $fingerprint,
        #[Must('regex:/^[0-7][0-9A-HJKMNP-TV-Z]{25}$/')] public string $seed,
    ) {}

    /** @throws StalePlan naming what has changed since where the plan is another one now */
    public static function same(Plan $plan, string $fingerprint, string $what): void
    {
        if (!hash_equals($plan->fingerprint(), $fingerprint)) {
            throw new StalePlan([$what]);
        }
    }

    public function mustBe(Plan $plan, string $what): void
    {
        self::same($plan, $this->fingerprint, $what);
    }
}
