<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** What came of a family code, for somebody with an account. */
final readonly class FamilyAnswer extends Resource
{
    /** @param  bool  $connected at once; false where the school looks first */
    public function __construct(public bool $connected) {}
}
