<?php

declare(strict_types=1);

namespace Tests\Support;

use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Intake\Fate;
use Vantrel\Core\Intake\SheetPicture;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Table\RowPart;

/** Cells of a list that are lost in silence. */
final class Unaccounted
{
    /**
     * Every cell with contents has one fate; what is said to be read is found again in what was understood; what is
     * left out of a row that counts has its reason.
     *
     * @return list<string> what does not hold
     */
    public static function of(BookReader $book, string $list): array
    {
        $wrong = [];
        foreach (array_keys($book->shapes) as $source) {
            foreach (SheetPicture::rows($book, $source) as $row) {
                $understood = ' ' . NameKey::of(implode(' ', $row->read)) . ' ';
                foreach ($row->cells as $c => $cell) {
                    $at = "$list, sheet $source, row $row->number, cell $c “{$cell->text}”";
                    if (trim($cell->text) === '') {
                        continue;
                    }
                    if ($cell->fate === Fate::Blank || $cell->fate === Fate::Above) {
                        $wrong[] = "$at: no fate";
                    } elseif ($cell->note === '') {
                        $wrong[] = "$at: {$cell->fate->value}, and no reason";
                    } elseif ($cell->fate === Fate::Read && $row->part === RowPart::Row) {
                        // Grades, dates, phones and roles are written otherwise when they are understood.
                        $verbatim = preg_match('/name|number|homeroom|section|e-mail/', $cell->note) === 1;
                        foreach (
                            $verbatim
                                ? explode(' ', NameKey::of((string) preg_replace('/[.,]0+\s*$/', '', $cell->text)))
                                : []
                            as $word
                        ) {
                            if ($word !== '' && !str_contains($understood, " $word ")) {
                                $wrong[] = "$at: said to be read as {$cell->note}, and “{$word}” is not in it";
                            }
                        }
                    }
                }
            }
        }

        return $wrong;
    }
}
