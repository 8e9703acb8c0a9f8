<?php

declare(strict_types=1);

namespace App\Guardians;

/** Which guardians of a school: named ones, or those that filters find. */
final readonly class GuardianWhom
{
    /**
     * @param  list<string>  $ids of ties to children; none where filters say it
     * @param  string  $section id, '' for any
     * @param  string  $grade code, '' for any
     * @param  string  $q part of the name of guardian or child, or of an address
     */
    public function __construct(
        public array $ids = [],
        public ?Standing $standing = null,
        public string $section = '',
        public string $grade = '',
        public string $q = '',
    ) {}

    /** @return array<string, string|list<string>> */
    public function kept(): array
    {
        return [...get_object_vars($this), 'standing' => $this->standing->value ?? ''];
    }

    /** @param  array<string, mixed>  $kept as {@see kept} gave it */
    public static function of(array $kept): self
    {
        $text = fn(string $key): string => is_string($kept[$key] ?? null) ? $kept[$key] : '';

        return new self(
            array_values(array_filter((array) ($kept['ids'] ?? []), is_string(...))),
            Standing::tryFrom($text('standing')),
            $text('section'),
            $text('grade'),
            $text('q'),
        );
    }
}
