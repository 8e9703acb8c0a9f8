<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/** A field of a record of the rostering service. */
final readonly class Field
{
    /** What a person can be, and how the standard calls it (Role of a user). */
    public const ROLES = [
        'aide',
        'counselor',
        'districtAdministrator',
        'guardian',
        'parent',
        'principal',
        'proctor',
        'relative',
        'siteAdministrator',
        'student',
        'systemAdministrator',
        'teacher',
    ];

    /**
     * @param  bool  $must whether every record has it
     * @param  bool  $many whether it is a list
     * @param  list<string>  $words of a {@see FieldType::Word}
     * @param  string  $to type of what a reference names
     */
    public function __construct(
        public string $name,
        public FieldType $type,
        public bool $must = false,
        public bool $many = false,
        public array $words = [],
        public string $to = '',
    ) {}

    /**
     * What is wrong with a value; null where nothing is.
     *
     * @param  mixed  $value as it stands in a JSON answer; null for one that is absent
     */
    public function problem(mixed $value): ?string
    {
        if ($value === null) {
            return $this->must ? "$this->name is missing" : null;
        }
        if (!$this->many) {
            return $this->fits($value) ? null : "$this->name is not as it should be";
        }
        if (!is_array($value) || !array_is_list($value)) {
            return "$this->name is no list";
        }
        if ($value === [] && $this->must) {
            return "$this->name is empty";
        }
        foreach ($value as $one) {
            if (!$this->fits($one)) {
                return "$this->name holds what it should not";
            }
        }

        return null;
    }

    private function fits(mixed $value): bool
    {
        return match ($this->type) {
            FieldType::Text => is_string($value),
            FieldType::Word => is_string($value) && in_array($value, $this->words, true),
            FieldType::Flag => in_array($value, ['true', 'false'], true),
            FieldType::Day => is_string($value) && preg_match('/^\d{4}-\d\d-\d\d$/', $value) === 1,
            FieldType::Instant => is_string($value) &&
                preg_match('/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z$/', $value) === 1,
            FieldType::Reference => self::refers($value, $this->to),
            FieldType::Identifier => is_array($value) &&
                is_string($value['type'] ?? null) &&
                is_string($value['identifier'] ?? null),
            FieldType::Role => is_array($value) &&
                in_array($value['roleType'] ?? null, ['primary', 'secondary'], true) &&
                in_array($value['role'] ?? null, self::ROLES, true) &&
                self::refers($value['org'] ?? null, 'org'),
        };
    }

    private static function refers(mixed $value, string $to): bool
    {
        return is_array($value) &&
            is_string($value['href'] ?? null) &&
            is_string($value['sourcedId'] ?? null) &&
            ($value['type'] ?? null) === $to;
    }
}
