<?php

declare(strict_types=1);

namespace App\PrintRoom;

use Vantrel\Core\PrintRoom\Wording;

/** What stands on one page of a letter. */
final readonly class Letter
{
    /**
     * @param  string  $language its tag
     * @param  array<string, string>  $values to fill in, by field
     * @param  list<array{string, string}>  $box what is typed, each with its label: a code, or user name and passphrase
     * @param  string  $link in the square
     * @param  string|null  $slip code of the part that is sent back, '' before it is known; null where there is none
     */
    public function __construct(
        public string $language,
        public Wording $wording,
        public array $values,
        public array $box,
        public string $link,
        public ?string $slip = null,
    ) {}

    /** @param  list<array{string, string}>  $box */
    public function with(array $box, string $link, ?string $slip): self
    {
        return new self($this->language, $this->wording, $this->values, $box, $link, $slip);
    }

    public function text(string $name): string
    {
        return $this->wording->text($name, $this->values);
    }
}
