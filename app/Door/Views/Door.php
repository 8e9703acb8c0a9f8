<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\CodeUse;

/** What a code opens, and what somebody without an account is asked there. */
final readonly class Door extends Resource
{
    /**
     * @param  string  $mail no, optional or required
     * @param  bool  $password whether it is chosen now; else with the link of a mail
     * @param  bool  $looked whether many wrong codes came: nothing is said of the code, and a person looks first
     * @param  list<string>  $domains what an address must end with, where one is required
     */
    public function __construct(
        public string $section,
        public string $school,
        public CodeUse $who,
        public bool $birthDate,
        public bool $number,
        public string $mail,
        public array $domains,
        public bool $password,
        public bool $looked,
    ) {}
}
