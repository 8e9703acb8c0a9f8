<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Refusal;

/** How the students of a grade sign in. */
enum Way: string
{
    case Card = 'card';
    case Passphrase = 'passphrase';
    case Own = 'own';
    case School = 'school';

    /**
     * What is typed instead of shown to a camera is taken or not. A password that a child has chosen is taken with a
     * card too: it was chosen before the policy changed, or by the link of a mail.
     *
     * @param  bool  $own whether what was typed is a password of their own
     *
     * @throws Refusal saying how to sign in
     */
    public function mustTakeSecret(bool $own): void
    {
        if ($this === self::School) {
            throw new Refusal('Students of your grade sign in with the school’s own sign-on.', 'secret');
        }
        if ($this === self::Card && !$own) {
            throw new Refusal(
                'Students of your grade sign in with the card: point the camera at its square.',
                'secret',
            );
        }
    }

    /** Whether a password is to be chosen before anything else. */
    public function asksForOwn(bool $own): bool
    {
        return $this === self::Own && !$own;
    }
}
