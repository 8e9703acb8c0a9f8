<?php

declare(strict_types=1);

namespace App\StandIns\Mail;

/** One connection to the stand-in, as its protocol goes on. */
interface Talk
{
    /** What is said first, '' where the other side begins. */
    public function greeting(): string;

    /**
     * Takes what has come, and leaves in `$came` what is not a whole command yet.
     *
     * @return string what is answered
     */
    public function take(string &$came): string;

    public function isOver(): bool;
}
