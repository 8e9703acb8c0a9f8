<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** A guardian the school has on record for the student. */
final readonly class OnRecord extends Resource
{
    /**
     * @param  string  $state how far they are connected
     * @param  string  $restriction why contact is restricted; '' where it is not
     * @param  list<string>  $alike what is the same as of whoever asks: name, address, telephone
     * @param  list<string>  $unlike what both have and is not the same
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $email,
        public string $phone,
        public string $state,
        public string $restriction,
        public array $alike,
        public array $unlike,
    ) {}
}
