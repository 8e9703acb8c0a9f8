<?php

declare(strict_types=1);

namespace App\Platform;

use Vantrel\Core\Values\GradeLevel;

/** A grade that a school teaches. */
final readonly class GradeChoice extends Resource
{
    public function __construct(public string $code, public string $label, public string $short) {}

    /** @return list<self> */
    public static function between(int $lowest, int $highest): array
    {
        return array_map(function (int $order): self {
            $grade = GradeLevel::of($order);

            return new self($grade->code(), $grade->label(), $grade->short());
        }, range($lowest, $highest));
    }
}
