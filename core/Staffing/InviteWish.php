<?php

declare(strict_types=1);

namespace Vantrel\Core\Staffing;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\Pasted;

/** Whom to invite into a section, as what, and for a substitute from when to when. */
final readonly class InviteWish
{
    /** As many addresses as one invitation may name. */
    public const MOST = 30;

    /**
     * @param  list<string>  $addresses as typed
     * @param  string  $by id of who invites
     * @param  string|null  $beginsOn first day of a substitute
     * @param  string|null  $endsOn first day after
     *
     * @throws Refusal
     */
    public function __construct(
        public array $addresses,
        public StaffRole $role,
        public string $by,
        public ?string $beginsOn = null,
        public ?string $endsOn = null,
    ) {
        if ($role === StaffRole::Lead) {
            throw new Refusal('A section has one lead. Invite a co-teacher, then hand the lead over.', 'role');
        }
        if ($role === StaffRole::Substitute && ($beginsOn === null || $endsOn === null || $endsOn <= $beginsOn)) {
            throw new Refusal('A substitute needs a first day and a later last day.', 'ends_on');
        }
        if ($role !== StaffRole::Substitute && ($beginsOn !== null || $endsOn !== null)) {
            throw new Refusal('Only a substitute has dates.', 'ends_on');
        }
        if ($addresses === [] || count($addresses) > self::MOST) {
            throw new Refusal('Name from 1 to ' . self::MOST . ' addresses.', 'email');
        }
    }

    /**
     * @return list<string> addresses in a text, apart by commas, semicolons, spaces or lines; with the names that a
     *     mail program writes before them
     */
    public static function addressesIn(string $text): array
    {
        $found = [];
        foreach (Pasted::pieces($text) as $piece) {
            $spaced = MailAddress::read($piece) === null;
            array_push($found, ...$spaced ? (preg_split('/\s+/', $piece, -1, PREG_SPLIT_NO_EMPTY) ?: []) : [$piece]);
        }

        return $found;
    }
}
