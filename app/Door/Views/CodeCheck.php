<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/**
 * Whether something typed can be a join code at all; says nothing about which codes exist. The sentence may have a
 * place for the symbol.
 */
final readonly class CodeCheck extends Resource
{
    public function __construct(
        public bool $wellFormed,
        public string $written,
        public string $mistake,
        public string $sentence,
        public string $symbol,
    ) {}
}
