<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\Records\NoticeKind;
use Vantrel\Core\Records\WorkState;

/** One thing to be read about a child. */
final readonly class BoardItem
{
    /**
     * @param  string  $section its name, '' for the whole school
     * @param  string  $day YYYY-MM-DD; '' of a notice
     * @param  string  $madeOn YYYY-MM-DD at the school
     * @param  string  $madeAt the same as a UTC instant
     * @param  WorkState|null  $result of the child; null where nobody has gone through it
     */
    public function __construct(
        public string $id,
        public NoticeKind $kind,
        public string $title,
        public string $body,
        public string $section,
        public string $day,
        public string $madeOn,
        public string $madeAt,
        public ?WorkState $result,
    ) {}
}
