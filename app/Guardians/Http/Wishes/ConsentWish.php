<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Guardians\ConsentWay;

/** When and how a parent agreed to the account of a child. */
final readonly class ConsentWish
{
    public function __construct(#[Must('date_format:Y-m-d')] public string $on, public ConsentWay $way) {}
}
