<?php

declare(strict_types=1);

namespace Vantrel\Core\Calendar;

use DateTimeImmutable;
use DateTimeZone;

/** A stretch of days, half open: the first day counts, the day it ends on does not. No end means it goes on. */
final readonly class Span
{
    /**
     * @param  string  $begins YYYY-MM-DD
     * @param  string|null  $ends YYYY-MM-DD
     */
    public function __construct(public string $begins, public ?string $ends) {}

    /** From the last day of a stretch, as people say it, to the day it ends on. */
    public static function after(string $lastDay): string
    {
        return (new DateTimeImmutable($lastDay, new DateTimeZone('UTC')))->modify('+1 day')->format('Y-m-d');
    }

    /** From the day a stretch ends on to its last day, as people say it. */
    public static function last(string $endsOn): string
    {
        return (new DateTimeImmutable($endsOn, new DateTimeZone('UTC')))->modify('-1 day')->format('Y-m-d');
    }

    public function holds(string $day): bool
    {
        return $this->begins <= $day && ($this->ends === null || $day < $this->ends);
    }

    /** Whether the two share a day or follow on each other without a gap, so that one span can stand for both. */
    public function touches(self $other): bool
    {
        return ($this->ends === null || $other->begins <= $this->ends) &&
            ($other->ends === null || $this->begins <= $other->ends);
    }

    /** From the earlier begin to the later end. */
    public function united(self $other): self
    {
        return new self(
            min($this->begins, $other->begins),
            $this->ends === null || $other->ends === null ? null : max($this->ends, $other->ends),
        );
    }
}
