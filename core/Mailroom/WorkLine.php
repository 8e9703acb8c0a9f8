<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\Calendar\DayWords;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\NoticeKind;

/** Work in one line, as a teacher writes it on the board: what it is, then the day it is due. */
final class WorkLine
{
    /** Characters of the line. */
    public const MOST = 300;

    /** As many words as a day is said in: "by the 4th of December 2026". */
    private const MOST_WORDS = 6;

    /**
     * @param  string  $today the day at the school
     *
     * @throws Refusal where it says no day, or nothing besides one
     */
    public static function read(string $line, string $today): NoticeWish
    {
        $line = Line::of($line);
        $words = explode(' ', $line);
        for ($count = min(self::MOST_WORDS, count($words)); $count >= 1; $count--) {
            $said = implode(' ', array_slice($words, -$count));
            $day = DayWords::coming(
                (string) preg_replace('/^(?:due|by|until|on|for|the|:|–|-|\s)+\b/iu', '', $said),
                $today,
            );
            if ($day !== null) {
                return self::wish(implode(' ', array_slice($words, 0, -$count)), $day);
            }
        }
        throw new Refusal("Say at the end when “{$line}” is due, such as “fri”, “4 dec” or “2026-12-04”.", 'text');
    }

    private static function wish(string $title, string $day): NoticeWish
    {
        // What leads over to the day is no part of the title.
        $title = (string) preg_replace(
            '/[\s,;:–-]*(?:\bis(?: due)?|\bdue|\bby|\buntil|\bon|\bfor)?[\s,;:–-]*$/iu',
            '',
            $title,
        );
        if ($title === '') {
            throw new Refusal('Say what it is before the day.', 'text');
        }

        return new NoticeWish(NoticeKind::Work, new NoticeText($title, ''), $day, false, []);
    }
}
