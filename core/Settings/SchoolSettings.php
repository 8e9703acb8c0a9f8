<?php

declare(strict_types=1);

namespace Vantrel\Core\Settings;

use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\School;
use Vantrel\Core\Sections\SectionNames;

/** What a school decides for itself. */
final class SchoolSettings
{
    public const MOST_STAY_DAYS = 90;

    /** How long something is kept at least, so that whatever can be undone still can; and at most. */
    public const LEAST_KEEP_DAYS = 15;

    public const MOST_KEEP_DAYS = 3650;

    /**
     * @param  array<string, string|int>  $wish columns of the school to their new values; those left out stay
     * @param  list<string>  $timeZones names of all time zones
     * @param  int  $below active students in grades that would not be taught any more
     *
     * @throws Refusal naming the field
     */
    public static function change(School $school, array $wish, array $timeZones, int $below): Plan
    {
        $values = [...$school->values, ...$wish];
        if (trim((string) $values['name']) === '') {
            throw new Refusal('Give the school a name.', 'name');
        }
        if ((int) $values['lowest_grade'] > (int) $values['highest_grade']) {
            throw new Refusal('The highest grade is below the lowest.', 'highest_grade');
        }
        if ($below > 0) {
            throw new Refusal(
                "$below students are in grades outside these. Move them first, or keep their grades.",
                'highest_grade',
            );
        }
        if (!in_array($values['time_zone'], $timeZones, true)) {
            throw new Refusal(
                "“{$values['time_zone']}” is not a time zone. Write it as in America/New_York.",
                'time_zone',
            );
        }
        $domains = json_decode((string) $values['mail_domains'], true);
        foreach (is_array($domains) ? $domains : [] as $domain) {
            if (!is_string($domain) || preg_match('/^([a-z0-9]([a-z0-9-]*[a-z0-9])?\.)+[a-z]{2,63}$/', $domain) !== 1) {
                throw new Refusal(
                    '“' .
                        (is_string($domain) ? $domain : '') .
                        '” is not a mail domain. Write what stands after the @, such as lanternfield.example.',
                    'mail_domains',
                );
            }
        }
        $wish['naming_pattern'] = SectionNames::check((string) $values['naming_pattern']);
        $wish['sign_in_policy'] = SignInPolicy::read((string) $values['sign_in_policy'])->text();
        foreach (['stay_days_shared', 'stay_days_own'] as $days) {
            if ((int) $values[$days] < 0 || (int) $values[$days] > self::MOST_STAY_DAYS) {
                throw new Refusal(
                    'Staying signed in lasts from 0 (not offered) to ' . self::MOST_STAY_DAYS . ' days.',
                    $days,
                );
            }
        }
        foreach (['keep_askings_days', 'keep_lists_days', 'keep_messages_days'] as $days) {
            if (
                (int) ($values[$days] ?? self::LEAST_KEEP_DAYS) < self::LEAST_KEEP_DAYS ||
                (int) ($values[$days] ?? self::LEAST_KEEP_DAYS) > self::MOST_KEEP_DAYS
            ) {
                throw new Refusal(
                    'Things are kept from ' .
                        self::LEAST_KEEP_DAYS .
                        ' to ' .
                        number_format(self::MOST_KEEP_DAYS) .
                        ' days.',
                    $days,
                );
            }
        }
        foreach (['day_opens', 'day_closes'] as $clock) {
            if (preg_match('/^([01]\d|2[0-3]):[0-5]\d$/', (string) $values[$clock]) !== 1) {
                throw new Refusal('Write the hour as 07:30.', $clock);
            }
        }
        if ($values['day_opens'] >= $values['day_closes']) {
            throw new Refusal('The school day ends before it begins.', 'day_closes');
        }
        $plan = new PlanBuilder();
        $plan->update($school, $wish, 'settings');

        return $plan->build("Settings of {$values['name']}", "Changes the settings of {$values['name']}.");
    }
}
