<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\School;

/** Notices when most of a list uses a mail domain that the school has not named: then the setting is probably wrong. */
final class MailDomains
{
    private const MOST = 0.5;

    private const LEAST_ROWS = 5;

    /**
     * @param  list<string>  $domains the school's own
     * @return list<string> domains of most students' or staff's own addresses that are none of them
     */
    public static function unknown(ListContents $contents, array $domains): array
    {
        $found = [];
        foreach (
            [
                array_map(fn(StudentLine $l): string => $l->email, $contents->students),
                array_map(fn(StaffLine $l): string => $l->email, $contents->staff),
            ]
            as $addresses
        ) {
            $counts = array_count_values(
                array_filter(
                    array_map(fn(string $a): string => substr((string) strrchr($a, '@'), 1), $addresses),
                    fn(string $d): bool => $d !== '',
                ),
            );
            $total = array_sum($counts);
            foreach ($counts as $domain => $n) {
                if (
                    $total >= self::LEAST_ROWS &&
                    $n / $total > self::MOST &&
                    !in_array((string) $domain, $domains, true)
                ) {
                    $found[] = (string) $domain;
                }
            }
        }

        return array_values(array_unique($found));
    }

    /** The plan that adds a domain to a school's own. */
    public static function adding(School $school, string $domain): Plan
    {
        $known = array_values(array_filter((array) json_decode($school->mailDomains(), true), is_string(...)));
        $domains = array_values(array_unique([...$known, $domain]));
        $plan = new PlanBuilder();
        $plan->update(
            $school,
            ['mail_domains' => json_encode($domains, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE)],
            'used by most of a list',
        );

        return $plan->build("Mail domain $domain", "Adds $domain to the mail domains of {$school->name()}.");
    }
}
