<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Refusal;

/**
 * Who may act on the whole of an account. An account can open things at several schools: where one is homed, what one
 * coordinates, teaches, or whose child one has. Whoever gives it another address, a way in, or another owner by a merge
 * gives all of that away; so it takes a coordinator of every one of these schools.
 */
final class Hold
{
    /**
     * @param  list<string>  $mine schools that whoever acts coordinates
     * @param  list<string>  $opens schools that the account opens something of
     */
    public static function has(array $mine, array $opens): bool
    {
        return array_diff($opens, $mine) === [];
    }

    /**
     * Says nothing of where else: that somebody has a child or a section at a school is that school's to say.
     *
     * @param  list<string>  $mine
     * @param  list<string>  $opens
     *
     * @throws Refusal
     */
    public static function must(array $mine, array $opens, string $name, string $field = ''): void
    {
        if (!self::has($mine, $opens)) {
            throw new Refusal(
                "The account of $name opens more than your schools. This takes somebody who coordinates every " .
                    'school it opens something of; or they do it themselves, from their own page.',
                $field,
            );
        }
    }
}
