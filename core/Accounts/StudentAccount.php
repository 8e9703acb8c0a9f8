<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;

/** The account of a student whom somebody at the door may be, with all it is signed in by. */
final readonly class StudentAccount
{
    /**
     * @param  list<SignIn>  $signIns of that student, the first one first
     * @param  Way  $way how students of that grade sign in
     */
    public function __construct(public Person $person, public array $signIns, public Way $way) {}

    /** Whether anyone has ever signed in to it, or set a password: then it has an owner. */
    public function isUsed(): bool
    {
        foreach ($this->signIns as $signIn) {
            if ($signIn->lastSignedInAt() !== null || $signIn->password() !== null) {
                return true;
            }
        }

        return false;
    }

    public function signIn(): ?SignIn
    {
        return $this->signIns[0] ?? null;
    }
}
