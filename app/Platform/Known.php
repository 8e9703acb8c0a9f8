<?php

declare(strict_types=1);

namespace App\Platform;

use RuntimeException;
use Vantrel\Core\Values\HashedSet;

/** Large sets of what everybody knows, made by `bin/known`. */
final class Known
{
    /** @var array<string, HashedSet> */
    private static array $read = [];

    /** Passwords that are tried first, in small letters. */
    public static function passwords(): HashedSet
    {
        return self::set('passwords');
    }

    /** Domains where anybody can have a mailbox. */
    public static function publicMail(): HashedSet
    {
        return self::set('public-mail');
    }

    private static function set(string $name): HashedSet
    {
        return self::$read[$name] ??= new HashedSet(
            file_get_contents(resource_path("known/$name.bin")) ?:
            throw new RuntimeException("resources/known/$name.bin is missing."),
        );
    }
}
