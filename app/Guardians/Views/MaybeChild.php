<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** A student whom a guardian without a letter may mean. */
final readonly class MaybeChild extends Resource
{
    /**
     * @param  string  $born YYYY-MM-DD, '' where it is not known
     * @param  bool  $fits whether it is the one whose name and birth date are those they wrote
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $born,
        public string $grade,
        public string $number,
        public bool $fits,
    ) {}
}
