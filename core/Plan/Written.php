<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;

/**
 * One record an entry of the ledger wrote, with as much of it as taking the entry back has to know: far less than its
 * images.
 */
final readonly class Written
{
    /**
     * @param  int|null  $wasVersion the record's version before; null where the entry made it
     * @param array<string, string|int|null> $back of the columns that tie it to others ({@see Entity::bound()}) those
     *     the entry changed, as they were
     * @param  bool  $merges whether it made an account point at another one
     * @param  list<string>  $issued secrets it set
     * @param  list<string>  $replaced those of them that there was one of before: they are kept nowhere
     */
    private function __construct(
        public Entity $entity,
        public string $id,
        public ?int $wasVersion,
        public array $back,
        public bool $merges,
        public array $issued,
        public array $replaced,
    ) {}

    /**
     * @param Change $image the change as the ledger keeps it: secrets that were there are left out of `before`, absent
     *     ones are null in it
     */
    public static function of(Change $image): self
    {
        $issued = array_values(
            array_filter($image->entity->issued(), fn(string $column): bool => isset($image->after[$column])),
        );

        return new self(
            $image->entity,
            $image->id,
            $image->version,
            $image->inserts() ? [] : array_intersect_key($image->before, array_flip($image->entity->bound())),
            $image->entity === Entity::Person && ($image->after['state'] ?? null) === 'merged',
            $issued,
            $image->inserts()
                ? []
                : array_values(
                    array_filter($issued, fn(string $column): bool => !array_key_exists($column, $image->before)),
                ),
        );
    }

    public function inserts(): bool
    {
        return $this->wasVersion === null;
    }
}
