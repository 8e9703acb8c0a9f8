<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/** What the sign-in page offers. */
final readonly class Entrance extends Resource
{
    /**
     * @param  string  $singleSignOn what the button says, '' where there is none
     * @param  bool  $secondFactor whether somebody has come back from the school's sign-on and a code is awaited
     * @param  int  $leastStudent characters a student's own password has at least, and anybody's beside a second factor
     * @param  int  $leastStaff characters of others who sign in with a password alone
     * @param  string  $note why somebody was sent back here, once
     */
    public function __construct(
        public bool $stayOwn,
        public bool $stayShared,
        public string $singleSignOn,
        public string $note,
        public bool $secondFactor,
        public int $leastStudent,
        public int $leastStaff,
    ) {}
}
