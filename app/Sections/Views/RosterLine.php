<?php

declare(strict_types=1);

namespace App\Sections\Views;

use App\Platform\Resource;

/** A student of a section. No address, no phone: teachers read this. */
final readonly class RosterLine extends Resource
{
    /**
     * @param  string|null  $ends first day they are not in it any more
     * @param  bool  $reserve whether it is a reserve account without an owner
     * @param  bool  $pictures whether they have chosen three pictures for the room pass
     * @param  string  $clash sections they are in at the same period, '' for none
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $grade,
        public string $userName,
        public string $begins,
        public ?string $ends,
        public string $source,
        public bool $signedIn,
        public bool $hasCard,
        public bool $hasGuardian,
        public bool $reserve,
        public bool $pictures,
        public string $clash,
    ) {}
}
