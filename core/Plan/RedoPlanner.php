<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** Works out how an entry that was undone is done again: from its images, for every record the undo has put back. */
final class RedoPlanner
{
    /**
     * @param  list<Change>  $images all the entry wrote, as the ledger keeps it
     * @param array<string, array{int, bool}> $now `table id` of those that are there, to its version and whether that
     *     was written before the undo
     * @return list<Change> with the versions the undo has brought back
     *
     * @throws Refusal where the entry wrote a secret that a record cannot be without
     * @throws StalePlan where a record has changed since the undo; names them as `table id`
     */
    public static function plan(int $seq, array $images, array $now): array
    {
        $changes = $stale = [];
        foreach ($images as $image) {
            [$version, $earlier] = $now["{$image->entity->value} $image->id"] ?? [null, false];
            // What the undo had to leave is as it was done, or had been changed before the undo.
            if ($version === $seq || ($version !== null && $version > $seq && $earlier)) {
                continue;
            }
            if ($version !== $image->version) {
                $stale[] = "{$image->entity->value} $image->id";

                continue;
            }
            $changes[] = new Change(
                $image->entity,
                $image->id,
                $image->version,
                $image->before,
                self::after($image),
                $image->reason,
            );
        }
        if ($stale !== []) {
            throw new StalePlan($stale);
        }

        return $changes;
    }

    /** @return array<string, string|int|null> */
    private static function after(Change $image): array
    {
        $values = $image->after;
        foreach ($image->entity->secrets() as $column) {
            if (!isset($values[$column])) {
                continue;
            }
            if (!in_array($column, $image->entity->issued(), true)) {
                throw new Refusal(
                    'This wrote cards, links or passes whose secrets are kept nowhere. Make them anew ' .
                        'instead of doing this again.',
                );
            }
            if ($image->inserts()) {
                $values[$column] = null;
            } else {
                unset($values[$column]);
            }
        }

        return $values;
    }
}
