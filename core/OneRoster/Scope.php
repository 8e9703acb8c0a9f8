<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/**
 * What a program may read. The names are the standard's; what of a person the lesser one leaves out is ours: the
 * addresses and numbers of families are not for a program that makes seating plans.
 */
enum Scope: string
{
    /** Sections and who is in them, by name: no address, no number, no guardian. */
    case Core = 'https://purl.imsglobal.org/spec/or/v1p2/scope/roster-core.readonly';
    /** With addresses, numbers and guardians. */
    case Roster = 'https://purl.imsglobal.org/spec/or/v1p2/scope/roster.readonly';
    /** Birth dates. */
    case Demographics = 'https://purl.imsglobal.org/spec/or/v1p2/scope/roster-demographics.readonly';

    /** Fields of a user that only {@see Roster} shows. */
    public const PRIVATE = ['username', 'email', 'sms', 'phone', 'agents', 'userIds', 'identifier'];

    /** Roles of those whom only {@see Roster} shows. */
    public const FAMILY = ['guardian', 'parent', 'relative'];

    public function label(): string
    {
        return match ($this) {
            self::Core => 'sections, and names of who is in them',
            self::Roster => 'numbers, addresses and guardians as well',
            self::Demographics => 'birth dates',
        };
    }

    /**
     * Whether any of the scopes opens a kind of record.
     *
     * @param  list<self>  $scopes
     */
    public static function opens(array $scopes, Kind $kind): bool
    {
        return $kind === Kind::Demographics
            ? in_array(self::Demographics, $scopes, true)
            : in_array(self::Core, $scopes, true) || in_array(self::Roster, $scopes, true);
    }

    /**
     * What is not shown is not found by either: a filter or an order by it would tell it piece by piece.
     *
     * @param  list<self>  $scopes
     *
     * @throws Fault
     */
    public static function mustAllow(array $scopes, Kind $kind, Query $query): void
    {
        if ($kind !== Kind::Users || self::seesFamilies($scopes)) {
            return;
        }
        foreach ($query->filter->terms ?? [] as $term) {
            if (in_array(explode('.', $term->field)[0], self::PRIVATE, true)) {
                throw new Fault(CodeMinor::InvalidFilterField, "This key may not filter by $term->field.");
            }
        }
        if (in_array($query->sort, self::PRIVATE, true)) {
            throw new Fault(CodeMinor::InvalidSortField, "This key may not sort by $query->sort.");
        }
        foreach (array_intersect($query->fields, self::PRIVATE) as $field) {
            throw new Fault(CodeMinor::InvalidSelectionField, "This key may not read $field.");
        }
    }

    /** @param  list<self>  $scopes */
    public static function seesFamilies(array $scopes): bool
    {
        return in_array(self::Roster, $scopes, true);
    }
}
