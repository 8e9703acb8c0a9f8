<?php

declare(strict_types=1);

namespace Tests\Support;

use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Intake\ListContents;
use Vantrel\Core\Intake\ListLayout;
use Vantrel\Core\Intake\SchoolFacts;
use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Table\DelimitedText;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\ReadingAnswers;
use Vantrel\Core\Table\Sheet;

/** Lists as text, read the way files are. */
final class Lists
{
    /** @param  array<string, string>  $said */
    public static function contents(
        string|Grid $list,
        array $said = [],
        ?SchoolFacts $school = null,
        ?NameBook $book = null,
    ): ListContents {
        return self::book([new Sheet('', is_string($list) ? DelimitedText::grid($list) : $list)], $said, $school, $book)
            ->contents;
    }

    /**
     * @param  list<Sheet>  $sheets
     * @param  array<string, string>  $said
     */
    public static function book(
        array $sheets,
        array $said = [],
        ?SchoolFacts $school = null,
        ?NameBook $book = null,
    ): BookReader {
        return BookReader::read(
            $sheets,
            new ReadingAnswers($said),
            $school ?? new SchoolFacts(),
            $book ?? new NameBook(),
            '2026-10-01',
        );
    }

    /** @param  array<string, string>  $said */
    public static function layout(string|Grid $list, array $said = [], ?NameBook $book = null): ListLayout
    {
        return ListLayout::of(
            new Sheet('', is_string($list) ? DelimitedText::grid($list) : $list),
            0,
            new ReadingAnswers($said),
            $book,
        );
    }
}
