<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Platform\Resource;

final readonly class AccountSide extends Resource
{
    /**
     * @param  list<string>  $sections
     * @param  list<string>  $userNames
     * @param  list<string>  $relatives guardians of a student, children of a guardian
     */
    public function __construct(
        public string $id,
        public string $name,
        public bool $survives,
        public array $sections,
        public array $userNames,
        public array $relatives,
        public ?string $lastSignedIn,
    ) {}
}
