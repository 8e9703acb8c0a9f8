<?php

declare(strict_types=1);

namespace App\OneRoster\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\OneRoster\Scope;

/** A key for a program: what it is called, and what it may read. */
final readonly class KeyWish
{
    /** @param  list<string>  $scopes */
    public function __construct(
        #[Must('max:80')] public string $name,
        #[Must('max:3', each: 'in:core,roster,demographics')] public array $scopes,
    ) {}

    /** @return list<Scope> */
    public function scopes(): array
    {
        return array_values(
            array_map(
                fn(string $word): Scope => match ($word) {
                    'core' => Scope::Core,
                    'roster' => Scope::Roster,
                    default => Scope::Demographics,
                },
                array_unique($this->scopes),
            ),
        );
    }
}
