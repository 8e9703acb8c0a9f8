<?php

declare(strict_types=1);

namespace App\Platform;

use Carbon\CarbonImmutable;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** What day and hour it is at a school. Enrollments are days of the school, not of the server. */
final class SchoolDay
{
    /** @var array<string, string> school to time zone */
    private static array $zones = [];

    public static function today(string $schoolId): string
    {
        return self::now($schoolId)->format('Y-m-d');
    }

    /** HH:MM. */
    public static function clock(string $schoolId): string
    {
        return self::now($schoolId)->format('H:i');
    }

    /** The instant, in UTC as stored, of a day and time as the clocks of the school say it. */
    public static function instant(string $schoolId, string $local): string
    {
        return CarbonImmutable::parse($local, self::zone($schoolId))->utc()->format('Y-m-d H:i:s');
    }

    /** The other way round: day and time as the clocks of the school say them, YYYY-MM-DDTHH:MM. */
    public static function local(string $schoolId, string $instant): string
    {
        return CarbonImmutable::parse($instant, 'UTC')->setTimezone(self::zone($schoolId))->format('Y-m-d\TH:i');
    }

    /** The day it was at the school at an instant: a plan keeps to the day it was looked at on, midnight or not. */
    public static function at(string $schoolId, string $instant): string
    {
        return substr(self::local($schoolId, $instant), 0, 10);
    }

    /**
     * The last day, as the clocks of the school say it, that is over before something ends: what is said to hold until
     * then holds all that day.
     */
    public static function lastWhole(string $schoolId, string $instant): string
    {
        return CarbonImmutable::parse(self::local($schoolId, $instant))->subDay()->format('Y-m-d');
    }

    /** Takes a school's time zone from whoever has just read it. */
    public static function know(string $schoolId, string $zone): void
    {
        self::$zones[$schoolId] = $zone;
    }

    /** Forgets what was known of a school: its time zone has been changed. */
    public static function forget(): void
    {
        self::$zones = [];
    }

    /**
     * For `->where(...)`: enrollments that hold on a day. Intervals are half-open.
     *
     * @param  string  $alias of the enrollments in the query
     * @return Closure(Builder): void
     */
    public static function inForce(string $alias, string $day): Closure
    {
        return function (Builder $query) use ($alias, $day): void {
            $query
                ->where("$alias.begins_on", '<=', $day)
                ->where(fn(Builder $q) => $q->whereNull("$alias.ends_on")->orWhere("$alias.ends_on", '>', $day));
        };
    }

    private static function now(string $schoolId): CarbonImmutable
    {
        return CarbonImmutable::now(self::zone($schoolId));
    }

    private static function zone(string $schoolId): string
    {
        return self::$zones[$schoolId] ??=
            (string) (DB::table('schools')->where('id', $schoolId)->value('time_zone') ?? 'UTC');
    }
}
