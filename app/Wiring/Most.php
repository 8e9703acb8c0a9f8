<?php

declare(strict_types=1);

namespace App\Wiring;

use Vantrel\Core\Mailroom\Attachment;
use Vantrel\Core\Mailroom\LetterTexts;
use Vantrel\Core\Mailroom\LetterWish;
use Vantrel\Core\Mailroom\Line;
use Vantrel\Core\Mailroom\NoticeText;
use Vantrel\Core\Mailroom\WorkLine;
use Vantrel\Core\Roll\EditPerson;
use Vantrel\Core\Sections\SectionNames;

/** How much what is written may hold, as the core says, for the pages too: they say so while it is typed. */
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

    /** What stands in the file. */
    public static function script(): string
    {
        $lines = array_map(
            fn(string $name, int $most): string => "    $name: $most,\n",
            array_keys(self::OF),
            self::OF,
        );

        return "// Written by `php artisan vantrel:openapi` from what the core says; not by hand.\n" .
            "/** Characters, or pieces, of what is written. */\n" .
            "export const MOST = {\n" .
            implode('', $lines) .
            "} as const;\n";
    }
}
