<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Row;

/** What belongs to one member of the staff. */
final readonly class StaffRecords
{
    /**
     * @param  list<Row>  $signIns
     * @param  list<Row>  $badges of these
     * @param  list<Row>  $identities
     * @param  list<Row>  $coordinators roles as coordinator that have not ended
     * @param  list<Row>  $invitations to their address, unanswered, into sections of the school
     * @param  list<Row>  $teaching enrollments as staff, today's and later ones, in sections of the school
     * @param  list<Row>  $colleagues enrollments of other staff in those sections
     * @param  array<string, Row>  $sections by id
     * @param  list<string>  $elsewhere sections they teach at other schools, in words
     */
    public function __construct(public array $signIns, public array $badges, public array $identities, public array $coordinators, public array $invitations, public array $teaching, public array $colleagues, public array $sections, public array $elsewhere = [])
    {
    }
}
