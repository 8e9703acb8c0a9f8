<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\CodeUse;

/** When a join code works, for how many, and for whom. Instants are UTC, the interval half-open. */
final readonly class CodeTerms
{
    public const MOST = 2000;

    /**
     * @param  int|null  $cap how many may come in by it
     *
     * @throws Refusal where they make no sense together
     */
    public function __construct(
        public CodeUse $use = CodeUse::Approval,
        public ?string $startsAt = null,
        public ?string $endsAt = null,
        public ?int $cap = null,
    ) {
        if ($startsAt !== null && $endsAt !== null && $endsAt <= $startsAt) {
            throw new Refusal('The code would end before it begins. Choose a later end.', 'ends_at');
        }
        if ($cap !== null && ($cap < 1 || $cap > self::MOST)) {
            throw new Refusal('A cap is a number from 1 to ' . self::MOST . '. Leave it empty for no cap.', 'cap');
        }
    }

    /** @return array<string, string|int|null> */
    public function columns(): array
    {
        return [
            'who' => $this->use->value,
            'starts_at' => $this->startsAt,
            'ends_at' => $this->endsAt,
            'cap' => $this->cap,
        ];
    }
}
