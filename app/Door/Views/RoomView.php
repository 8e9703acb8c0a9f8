<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/** The name list that a room pass opens: display names and nothing else. */
final readonly class RoomView extends Resource
{
    /**
     * @param  list<RoomName>  $names
     * @param  bool  $pictures whether three pictures are tapped beside the name
     * @param  list<string>  $choice names of the pictures, where they are
     */
    public function __construct(
        public string $section,
        public string $school,
        public array $names,
        public bool $pictures,
        public array $choice,
    ) {}
}
