<?php

declare(strict_types=1);

namespace App\PrintRoom;

use Vantrel\Core\Records\SignIn;

/** The sign-ins of some people: those that are printed, in the order of the people, and all of them. */
final readonly class LoginSet
{
    /**
     * @param  list<SignIn>  $printed one for each who has any
     * @param  list<SignIn>  $all after a merge there may be more than one to a person
     */
    public function __construct(public array $printed, public array $all) {}
}
