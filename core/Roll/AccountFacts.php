<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

/** What the problems of a student's account are judged by. */
final readonly class AccountFacts
{
    /**
     * @param  bool  $placed whether an enrollment in an open section holds today
     * @param  bool  $signedIn whether anybody has signed in with one of the user names, ever
     * @param  bool  $guarded whether a guardian is connected, confirmed or not
     * @param  bool  $carded whether a card works
     */
    public function __construct(
        public bool $placed,
        public bool $signedIn,
        public bool $guarded,
        public bool $carded,
    ) {}
}
