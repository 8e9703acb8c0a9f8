<?php

declare(strict_types=1);

namespace Vantrel\Core\Settings;

use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\School;
use Vantrel\Core\Sections\SectionNames;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\HashedSet;

/** What a school decides for itself. */
final class SchoolSettings
{
    public const MOST_STAY_DAYS = 90;

    /** How long something is kept at least, so that whatever can be undone still can; and at most. */
    public const LEAST_KEEP_DAYS = 15;

    public const MOST_KEEP_DAYS = 3650;

    /** The order of a grade as typed; one that no school teaches, for what is no grade. */
    public static function grade(?string $typed): ?int
    {
        return $typed === null ? null : GradeLevel::read($typed)->order ?? GradeLevel::BEYOND;
    }

    /**
     * The codes of the grades that would be taught.
     *
     * @param  array<string, string|int>  $wish as {@see change()} takes it
     * @return list<string>|null null where the wish does not touch them, or cannot be
     */
    public static function taught(School $school, array $wish): ?array
    {
        $values = [...$school->values, ...$wish];
        [$low, $high] = [(int) $values['lowest_grade'], (int) $values['highest_grade']];

        return (!isset($wish['lowest_grade']) && !isset($wish['highest_grade'])) ||
            $low > $high ||
            $high >= GradeLevel::BEYOND
            ? null
            : array_map(fn(int $g): string => GradeLevel::of($g)->code(), range($low, $high));
    }

    /**
     * Mail domains as they are stored.
     *
     * @param  list<string>  $typed with or without the @
     */
    public static function domains(array $typed): string
    {
        $plain = array_map(fn(string $d): string => mb_strtolower(ltrim(trim($d), '@')), $typed);

        return json_encode(array_values(array_unique($plain)), JSON_THROW_ON_ERROR);
    }

    /**
     * Mail domains belong to the whole installation: a school takes one that another has, or that somebody adds who
     * answers for all of them. Where mailboxes are handed out to anybody, a school vouches for nobody.
     *
     * @param  list<string>  $wished
     * @param  list<string>  $known of any school of the installation
     * @param  bool  $answersForAll whether whoever wishes it coordinates every school
     *
     * @throws Refusal
     */
    public static function mustBeOurs(array $wished, array $known, bool $answersForAll, HashedSet $public): void
    {
        foreach (array_diff($wished, $known) as $domain) {
            if ($public->has($domain)) {
                throw new Refusal(
                    "Anybody can have a mailbox at $domain, so the school cannot vouch for whose it is. Name a " .
                        'domain whose mailboxes the school hands out itself.',
                    'mail_domains',
                );
            }
            if (!$answersForAll) {
                throw new Refusal(
                    "$domain is no mail domain of this installation yet. Somebody who coordinates all of its schools " .
                        'adds it, at any school; then you can take it here.',
                    'mail_domains',
                );
            }
        }
    }

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
        if (preg_match('/[\p{Cc}\x{202A}-\x{202E}\x{2066}-\x{2069}]/u', (string) $values['name']) === 1) {
            throw new Refusal('There are signs in the name that cannot be seen. Type it anew.', 'name');
        }
        foreach (['lowest_grade', 'highest_grade'] as $end) {
            if ((int) $values[$end] >= GradeLevel::BEYOND) {
                throw new Refusal('That is not a grade. Grades are PK, K and 1 to 13.', $end);
            }
        }
        if ((int) $values['lowest_grade'] > (int) $values['highest_grade']) {
            throw new Refusal('The highest grade is below the lowest.', 'highest_grade');
        }
        if ($below > 0) {
            throw new Refusal(
                Words::count($below, 'student is in a grade', 'students are in grades') .
                    ' outside this range. Move ' .
                    ($below === 1 ? 'the student first, or keep the grade.' : 'them first, or keep the grades.'),
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
        foreach (['keep_askings_days', 'keep_lists_days', 'keep_messages_days', 'keep_ledger_days'] as $days) {
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
        foreach (['quiet_from', 'quiet_to'] as $hour) {
            if ((int) ($values[$hour] ?? 0) < 0 || (int) ($values[$hour] ?? 0) > 23) {
                throw new Refusal('An hour is from 0 to 23.', $hour);
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
