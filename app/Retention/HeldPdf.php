<?php

declare(strict_types=1);

namespace App\Retention;

use App\Platform\Print\Face;
use App\Platform\Print\PrintedPages;

/** What is held about somebody, on paper. */
final class HeldPdf
{
    private const WIDTH = 210.0;

    private const HEIGHT = 297.0;

    private const SIDE = 20.0;

    /** @param  array<string, list<array<string, string>>>  $held */
    public static function of(array $held, string $name, string $school, string $day): string
    {
        $pdf = new PrintedPages(self::WIDTH, self::HEIGHT, "What is held about $name", $school);
        $inner = self::WIDTH - 2 * self::SIDE;
        $page = 0;
        $begin = function () use ($pdf, $inner, $school, $day, &$page): float {
            $pdf->page();
            $page++;
            $pdf->put(Face::Sans, 8, "$school, $day", self::SIDE, 10, $inner);
            $pdf->put(Face::Sans, 8, (string) $page, self::SIDE, 10, $inner, 'R');

            return 20.0;
        };
        $y = $pdf->paragraph(Face::Serif, 18, "What is held about $name", self::SIDE, $begin(), $inner);
        foreach ($held as $what => $rows) {
            $y = $y > self::HEIGHT - 45 ? $begin() : $y;
            $y = $pdf->paragraph(Face::Bold, 11, $what, self::SIDE, $y + 6, $inner) + 1;
            foreach ($rows as $row) {
                $line = implode('; ', array_map(fn(string $k, string $v): string => "$k: $v", array_keys($row), $row));
                foreach ($pdf->lines($line, Face::Sans, 9, $inner - 4) as $text) {
                    $y = $y > self::HEIGHT - 22 ? $begin() : $y;
                    $pdf->put(Face::Sans, 9, $text, self::SIDE + 4, $y, $inner - 4);
                    $y += 4.6;
                }
                $y += 1.4;
            }
        }

        return $pdf->bytes();
    }
}
