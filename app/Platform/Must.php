<?php

declare(strict_types=1);

namespace App\Platform;

use Attribute;

/**
 * What a part of a wish must be besides what its type says, in the framework's words for validation (`max:60`, `ulid`,
 * `date_format:Y-m-d`), apart by `|`; of a list or map, what each of its entries must be too.
 */
#[Attribute(Attribute::TARGET_PARAMETER | Attribute::TARGET_PROPERTY)]
final readonly class Must
{
    /** @param  string|list<string>  $rules a list where a rule has a `|` in itself */
    public function __construct(private string|array $rules, public string $each = '') {}

    /** @return list<string> */
    public function rules(): array
    {
        return match (true) {
            is_array($this->rules) => $this->rules,
            $this->rules === '' => [],
            default => explode('|', $this->rules),
        };
    }
}
