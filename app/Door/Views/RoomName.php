<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/** One name to tap. */
final readonly class RoomName extends Resource
{
    /**
     * @param  string  $key names the student for this pass only
     * @param  bool  $chosen whether they have pictures of their own already
     */
    public function __construct(public string $key, public string $name, public bool $chosen) {}
}
