<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Records\GuardianshipState;

/** A guardian of a student on record, as whoever is asked into a section by mail is looked for. */
final readonly class KnownGuardian
{
    /**
     * @param  string|null  $email null where there is none
     * @param  string|null  $language a tag
     */
    public function __construct(
        public string $id,
        public ?string $email,
        public ?string $language,
        public GuardianshipState $state,
        public bool $keptAway,
    ) {}

    /** Whether they are written to about the child. */
    public function hears(): bool
    {
        return !$this->keptAway && in_array($this->state, MessageKind::Student->heardBy(), true);
    }
}
