<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** What a row of a sheet is to the list that stands in it. */
enum RowPart: string
{
    case Header = 'header';
    /** Above the header, saying whose the columns below are. */
    case Groups = 'groups';
    /** Between the rows, saying what those below are of. */
    case Heading = 'heading';
    case Title = 'title';
    case Total = 'total';
    case Repeated = 'repeated';
    case Hidden = 'hidden';
    case Struck = 'struck';
    case Text = 'text';
    /** Left out because somebody said so. */
    case Skipped = 'skipped';
    case Row = 'row';

    /** Whether what is in it counts for the list, though it is no row of it. */
    public function saysOfOthers(): bool
    {
        return in_array($this, [self::Header, self::Groups, self::Heading], true);
    }
}
