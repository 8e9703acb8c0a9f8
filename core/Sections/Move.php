<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;

/** Students who are to come into a section, out of one, or both, from a day on. */
final readonly class Move
{
    /** The section they come into; null where they are only taken out. */
    public ?Section $into;

    /** The section they leave; null where they stay where they are. */
    public ?Section $outOf;

    /**
     * @param  list<Person>  $people in the order to show
     * @param  Section|null  $from may be left out where they come in as well
     * @param  Section|null  $to may be left out where they are taken out
     * @param  string  $day YYYY-MM-DD, the first day of what comes after
     *
     * @throws Refusal where nobody is named, or a section is missing, archived or both at once
     */
    public function __construct(
        public MoveKind $kind,
        public array $people,
        ?Section $from,
        ?Section $to,
        public string $day,
    ) {
        if ($people === []) {
            throw new Refusal('Choose at least one student.');
        }
        if ($kind !== MoveKind::Remove) {
            Enrolling::mustBeOpen($to ?? throw new Refusal('Choose the section they come into.', 'to'));
        }
        if ($kind === MoveKind::Move || $kind === MoveKind::Remove) {
            Enrolling::mustBeOpen($from ?? throw new Refusal('Choose the section they leave.', 'from'));
        }
        if ($from !== null && $to !== null && $from->id === $to->id) {
            throw new Refusal('They are in that section already. Choose another.', 'to');
        }
        $this->into = $kind === MoveKind::Remove ? null : $to;
        $this->outOf = $kind === MoveKind::Move || $kind === MoveKind::Remove ? $from : null;
    }
}
