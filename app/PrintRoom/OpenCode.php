<?php

declare(strict_types=1);

namespace App\PrintRoom;

/** A section's code that works, to be printed. */
final readonly class OpenCode
{
    /**
     * @param  string  $written as on a wall: `KDM-4X7R`
     * @param  string  $link in the square
     */
    public function __construct(
        public string $school,
        public string $section,
        public string $written,
        public string $link,
        public string $place,
    ) {}
}
