<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;

/** So many letters in a language. */
final readonly class LanguageCount extends Resource
{
    public function __construct(public string $language, public string $name, public int $letters) {}
}
