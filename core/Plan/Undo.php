<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;

/** What taking one entry back comes to, before it is done. A value: equal inputs give equal undos. */
final readonly class Undo
{
    /**
     * @param  array<string, array<string, Stay>>  $stays table to id of what stays, and why
     * @param  int  $goesBack records put back as they were
     * @param  list<array{Entity, string, string}>  $lost secrets that cannot come back: kind, id and column
     * @param list<int> $first numbers of later entries that hold what stays, newest first: undone before this one, all
     *     goes back
     * @param  bool  $blocked whether what would go back makes no sense alone
     */
    public function __construct(
        public int $seq,
        public array $stays,
        public int $goesBack,
        public array $lost,
        public array $first,
        public bool $blocked,
    ) {}

    public function keeps(Entity $entity, string $id): bool
    {
        return isset($this->stays[$entity->value][$id]);
    }

    public function staysCount(): int
    {
        return array_sum(array_map(count(...), $this->stays));
    }

    /**
     * SHA-256 over all that several would do, so that what was looked at is what is done.
     *
     * @param  list<self>  $undos
     */
    public static function fingerprint(array $undos): string
    {
        $all = [];
        foreach ($undos as $undo) {
            $stays = array_filter($undo->stays, fn(array $ids): bool => $ids !== []);
            ksort($stays);
            foreach ($stays as &$ids) {
                ksort($ids);
            }
            $all[] = [$undo->seq, $stays, $undo->goesBack, $undo->blocked];
        }

        return hash('sha256', json_encode($all, JSON_THROW_ON_ERROR));
    }
}
