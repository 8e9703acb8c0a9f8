<?php

declare(strict_types=1);

namespace App\Ledger;

use Closure;
use LogicException;
use Vantrel\Core\Records\Entity;

/**
 * Lets nothing but the ledger write tables that plans change: every statement of a request, a job or a command is
 * looked at before it runs, however it was made. Armed while the application works; not while migrations, seeds and
 * benches fill tables.
 */
final class WriteGuard
{
    private static int $armed = 0;

    private static int $open = 0;

    public static function arm(): void
    {
        self::$armed++;
    }

    public static function disarm(): void
    {
        self::$armed = max(0, self::$armed - 1);
    }

    /**
     * What writes with leave: the ledger, the clean-up of what is past its time, and the time somebody last signed in.
     *
     * @template T
     *
     * @param  Closure(): T  $work
     * @return T
     */
    public static function within(Closure $work): mixed
    {
        self::$open++;
        try {
            return $work();
        } finally {
            self::$open--;
        }
    }

    public static function isOpen(): bool
    {
        return self::$open > 0;
    }

    /** @throws LogicException naming the table */
    public static function look(string $sql): void
    {
        if (self::$armed === 0 || self::$open > 0) {
            return;
        }
        $table = self::written($sql);
        if ($table !== null) {
            throw new LogicException("Only the ledger writes $table. Make a plan and apply it.");
        }
    }

    /** The table of plans that a statement writes, or null. */
    public static function written(string $sql): ?string
    {
        $sql = ltrim((string) preg_replace('#/\*.*?\*/#s', ' ', $sql), " \t\r\n(");
        $target = match (1) {
            preg_match('/^(?:insert|replace)\b(.*?)(?:\(|\bvalues?\b|\bselect\b|\bset\b|$)/is', $sql, $m),
            preg_match('/^update\b(.*?)\bset\b/is', $sql, $m),
            preg_match('/^delete\b(.*?)(?:\bwhere\b|$)/is', $sql, $m),
            preg_match('/^(?:truncate|drop|alter|load)\b(.*)$/is', $sql, $m)
                => $m[1],
            default => null,
        };
        if ($target === null) {
            return null;
        }
        foreach (Entity::cases() as $entity) {
            if (preg_match('/(?<![\w.])(?:`?\w+`?\.)?`?' . $entity->value . '`?(?!\w)/i', $target) === 1) {
                return $entity->value;
            }
        }

        return null;
    }
}
