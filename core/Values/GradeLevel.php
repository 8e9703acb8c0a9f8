<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

/**
 * A school grade: PK, KG, 01 to 13, as the CEDS entry grade level codes that OneRoster 1.2 uses. Ordered.
 */
final readonly class GradeLevel
{
    private const WORDS = [
        'pk' => -1,
        'prek' => -1,
        'prekindergarten' => -1,
        'preschool' => -1,
        'nursery' => -1,
        'k' => 0,
        'kg' => 0,
        'kindergarten' => 0,
        'kinder' => 0,
        'reception' => 0,
    ];

    /** @param  int  $order -1 for PK, 0 for KG, then the number of the grade */
    private function __construct(public int $order) {}

    /** Reads "5", "05", "5th", "Grade 5", "Gr. 5", "Year 5", "K", "5.0"; null if it is no grade. */
    public static function read(string $cell): ?self
    {
        $cell = mb_strtolower(trim($cell));
        $word = (string) preg_replace('/[^a-z]/', '', $cell);
        if (isset(self::WORDS[$word]) && preg_match('/\d/', $cell) !== 1) {
            return new self(self::WORDS[$word]);
        }
        if (
            preg_match(
                '/^(?:grade|gr|year|yr|class|grado|curso|niveau|klasse|lớp|клас|年级)?\.?\s*0*(\d{1,2})(?:\.0+)?\s*' .
                    '(?:st|nd|rd|th|º|ª|°|e|ème|\.|-?й|年级)?\s*(?:grade|grado|klasse|клас)?$/u',
                $cell,
                $m,
            ) === 1
        ) {
            $n = (int) $m[1];

            return $n >= 1 && $n <= 13 ? new self($n) : null;
        }

        return null;
    }

    public static function of(int $order): self
    {
        return new self(max(-1, min(13, $order)));
    }

    /** @return list<string> every stored code, lowest grade first */
    public static function codes(): array
    {
        return array_map(fn(int $order): string => self::of($order)->code(), range(-1, 13));
    }

    /** The stored code: PK, KG, 01 .. 13. */
    public function code(): string
    {
        return match ($this->order) {
            -1 => 'PK',
            0 => 'KG',
            default => sprintf('%02d', $this->order),
        };
    }

    /** As said: "kindergarten", "grade 5". */
    public function label(): string
    {
        return match ($this->order) {
            -1 => 'pre-kindergarten',
            0 => 'kindergarten',
            default => 'grade ' . $this->order,
        };
    }

    /** As set in a table: PK, K, 5. */
    public function short(): string
    {
        return match ($this->order) {
            -1 => 'PK',
            0 => 'K',
            default => (string) $this->order,
        };
    }

    public function next(): self
    {
        return new self($this->order + 1);
    }
}
