<?php

declare(strict_types=1);

namespace App\Wiring;

use Vantrel\Core\Accounts\PasswordRules;
use Vantrel\Core\Mailroom\Attachment;
use Vantrel\Core\Mailroom\LetterTexts;
use Vantrel\Core\Mailroom\LetterWish;
use Vantrel\Core\Mailroom\Line;
use Vantrel\Core\Mailroom\NoticeText;
use Vantrel\Core\Mailroom\WorkLine;
use Vantrel\Core\Roll\EditPerson;
use Vantrel\Core\Sections\SectionNames;

/** How much, and how little, what is written may hold, as the core says: the pages say so while it is typed. */
final class Most
{
    public const FILE = 'resources/js/api/most.ts';

    private const OF = [
        'letterFiles' => Attachment::MOST,
        'letterSubject' => Line::MOST,
        'letterAsText' => LetterWish::MOST_TEXT,
        'keptLetterName' => LetterTexts::MOST_NAME,
        'noticeTitle' => NoticeText::MOST_TITLE,
        'workLine' => WorkLine::MOST,
        'sectionName' => SectionNames::MAX,
        'personName' => EditPerson::LONGEST_NAME,
        'personNumber' => EditPerson::LONGEST_NUMBER,
    ];

    private const LEAST = [
        'password' => PasswordRules::LEAST,
        'passwordAlone' => PasswordRules::LEAST_ALONE,
    ];

    /** What stands in the file. */
    public static function script(): string
    {
        return "// Written by `php artisan vantrel:openapi` from what the core says; not by hand.\n" .
            "/** Characters, or pieces, of what is written. */\n" .
            self::listed('MOST', self::OF) .
            "/** Characters that are asked for. */\n" .
            self::listed('LEAST', self::LEAST);
    }

    /** @param  array<string, int>  $numbers */
    private static function listed(string $name, array $numbers): string
    {
        $lines = array_map(
            fn(string $of, int $number): string => "    $of: $number,\n",
            array_keys($numbers),
            $numbers,
        );

        return "export const $name = {\n" . implode('', $lines) . "} as const;\n";
    }
}
