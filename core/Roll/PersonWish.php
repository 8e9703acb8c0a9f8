<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

/** What one person is to be like, as typed; '' empties a field, and what is null stays as it is. */
final readonly class PersonWish
{
    public function __construct(
        public ?string $given = null,
        public ?string $family = null,
        public ?string $preferred = null,
        public ?string $birthDate = null,
        public ?string $number = null,
        public ?string $grade = null,
        public ?string $email = null,
        public ?string $phone = null,
        public ?string $language = null,
        public ?string $nameShown = null,
    ) {}
}
