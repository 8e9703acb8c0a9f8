<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

use Normalizer;

/** A student number without what lists write around it: "#020417", "ID 020417", "20,417", "020417.0". */
final class StudentNumber
{
    /** What tells one number from another: neither case nor accents do, as in the database. */
    public static function key(string $number): string
    {
        if (preg_match('/[^\x00-\x7F]/', $number) !== 1) {
            return strtolower($number);
        }
        $apart = Normalizer::normalize($number, Normalizer::FORM_KD);

        return mb_strtolower((string) preg_replace('/\p{M}+/u', '', is_string($apart) ? $apart : $number));
    }

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
