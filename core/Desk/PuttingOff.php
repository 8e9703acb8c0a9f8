<?php

declare(strict_types=1);

namespace Vantrel\Core\Desk;

use DateTimeImmutable;
use DateTimeZone;
use Vantrel\Core\Plan\Refusal;

/** Something that waits on a Desk, put off until a day, for a reason that others can read. */
final readonly class PuttingOff
{
    /** What is put off for longer than a year is forgotten. */
    private const LONGEST_DAYS = 366;

    public string $reason;

    /**
     * @param  string  $until YYYY-MM-DD
     * @param  string  $today YYYY-MM-DD, at the school
     *
     * @throws Refusal where the day has come already or is too far off, or no reason is given
     */
    public function __construct(public string $until, string $reason, string $today)
    {
        $last = (new DateTimeImmutable($today, new DateTimeZone('UTC')))->modify('+' . self::LONGEST_DAYS . ' days');
        if ($until <= $today || $until > $last->format('Y-m-d')) {
            throw new Refusal('Choose a day after today and within a year.', 'until');
        }
        $this->reason = trim($reason);
        if ($this->reason === '') {
            throw new Refusal('Say why, for whoever looks at the Desk with you.', 'reason');
        }
    }
}
