<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

/** A student on record, as whoever is asked into a section by mail is looked for. */
final readonly class KnownStudent
{
    /**
     * @param  string  $name what they are called
     * @param  string|null  $email one that counts: confirmed, or given by the school; never one they only claim
     * @param  list<string>  $keys number and user names, as written
     * @param  string|null  $language a tag
     * @param  bool  $isIn whether they are in the section, or going to be
     * @param  list<KnownGuardian>  $guardians
     */
    public function __construct(
        public string $id,
        public string $name,
        public ?string $email,
        public array $keys,
        public ?string $language,
        public bool $isIn,
        public array $guardians,
    ) {}
}
