<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** What a link to a guardian shows to whoever has it: the school, the given names of the children, and no more. */
final readonly class LinkView extends Resource
{
    /**
     * @param  list<string>  $students given names
     * @param  bool  $opens whether a password is to be chosen; false where the guardian has an account that is open
     * @param  string  $userName what they sign in with
     */
    public function __construct(
        public string $school,
        public array $students,
        public bool $opens,
        public string $userName,
    ) {}
}
