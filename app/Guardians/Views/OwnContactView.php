<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;
use Vantrel\Core\Guardians\Hears;

/** What a guardian chooses for themselves. */
final readonly class OwnContactView extends Resource
{
    /**
     * @param  int  $hour of the school's clock
     */
    public function __construct(
        public string $email,
        public bool $emailConfirmed,
        public string $phone,
        public bool $phoneConfirmed,
        public Hears $often,
        public int $hour,
    ) {}
}
