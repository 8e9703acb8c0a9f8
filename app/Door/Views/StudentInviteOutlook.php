<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Mailroom\Views\LetterPreview;
use App\Platform\Resource;

/** What asking students or families into a section would send, before it is sent. */
final readonly class StudentInviteOutlook extends Resource
{
    /**
     * @param  int  $known how many of them go to somebody on record
     * @param  array<string, int>  $languages how many in each
     * @param  list<LeftOutLine>  $leftOut
     * @param  list<string>  $bounced of those invited, what was typed where the last mail came back
     * @param  list<LetterPreview>  $previews one of each language
     * @param  int  $days a link works
     * @param  string  $seen fingerprint, to be sent back with it
     */
    public function __construct(
        public int $count,
        public int $known,
        public array $languages,
        public array $leftOut,
        public array $bounced,
        public array $previews,
        public int $days,
        public string $seen,
    ) {}
}
