<?php

declare(strict_types=1);

namespace Tests\Support\OddLists;

/** One student of a made-up list, as they truly are; '' and [] where the list does not say. */
final readonly class Child
{
    /** @param  list<array{name: string, email: string, phone: string}>  $guardians phone as E.164 */
    public function __construct(
        public string $given,
        public string $family,
        public string $number,
        public string $born,
        public string $grade,
        public string $section,
        public array $guardians,
    ) {}
}
