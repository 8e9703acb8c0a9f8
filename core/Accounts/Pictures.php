<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Refusal;

/**
 * Three pictures in an order a child chooses and remembers: 12 x 12 x 12 = 1,728 ways. Only ever asked for beside a
 * name on a device that the room pass opened, with few tries; never a way to sign in by itself.
 */
final class Pictures
{
    public const ALL = ['boat', 'leaf', 'key', 'kite', 'shell', 'bell', 'house', 'sun', 'fish', 'cup', 'tree', 'moon'];

    public const LENGTH = 3;

    /**
     * @param  list<string>  $chosen
     *
     * @throws Refusal where they are not three of ours, or all the same
     */
    public static function word(array $chosen): string
    {
        if (count($chosen) !== self::LENGTH || array_diff($chosen, self::ALL) !== []) {
            throw new Refusal('Tap three pictures.', 'pictures');
        }

        return implode(' ', $chosen);
    }

    /** @param  list<string>  $chosen */
    public static function mustBeNew(array $chosen): void
    {
        if (count(array_unique($chosen)) === 1) {
            throw new Refusal('Take at least two different pictures.', 'pictures');
        }
    }
}
