<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

/** A student number without what lists write around it: "#020417", "ID 020417", "20,417", "020417.0". */
final class StudentNumber
{
    public static function bare(string $cell): string
    {
        $cell = trim($cell);
        $cell = (string) preg_replace(
            '/^(?:#|№|(?:student\s+)?(?:id|no|nr|num|number)\b[.:#]?)\s*(?=[\p{L}\d])/iu',
            '',
            $cell,
        );
        $cell = ltrim($cell, "'’");

        return preg_match('/^\d{1,3}(?:,\d{3})+$/', $cell) === 1
            ? str_replace(',', '', $cell)
            : (string) preg_replace('/^(\d+)[.,]0+$/', '$1', $cell);
    }
}
