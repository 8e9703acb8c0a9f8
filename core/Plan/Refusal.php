<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use DomainException;

/**
 * A wish that the rules of the job do not allow. The message says what and what to do, and is fit to be shown. Where a
 * page may say it in another language, what varies is not written into the sentence but stands beside it.
 */
final class Refusal extends DomainException
{
    /**
     * @param  string  $sentence with places such as `{{days}}` for the values
     * @param  array<string, string|int>  $values by the names of their places
     */
    public function __construct(
        public readonly string $sentence,
        public readonly ?string $field = null,
        public readonly array $values = [],
    ) {
        $filled = [];
        foreach ($values as $name => $value) {
            $filled['{{' . $name . '}}'] = (string) $value;
        }
        parent::__construct(strtr($sentence, $filled));
    }
}
