<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

enum NoticeKind: string
{
    case Notice = 'notice';
    /** Something that happens on a day. */
    case Date = 'date';
    /** Work of a section that is due on a day. */
    case Work = 'work';
}
