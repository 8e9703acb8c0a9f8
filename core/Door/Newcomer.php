<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Names\PersonName;

/** What somebody without an account says of themselves at the door. */
final readonly class Newcomer
{
    /**
     * @param  string|null  $birthDate YYYY-MM-DD
     * @param  string|null  $email folded
     * @param string|null $passwordHash as stored; the core never sees the password. None where a mail is to be answered
     *     first
     * @param  bool  $looked whether many wrong codes came, so that a person looks at whoever comes by one
     */
    public function __construct(
        public PersonName $name,
        public ?string $birthDate,
        public ?string $number,
        public ?string $email,
        public ?string $passwordHash,
        public bool $looked = false,
    ) {}
}
