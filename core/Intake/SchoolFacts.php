<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Values\GradeLevel;

/** What reading a list needs to know of the school it is for. */
final readonly class SchoolFacts
{
    /**
     * @param  string  $country ISO 3166-1 code
     * @param  int  $lowest order of the lowest grade taught, as {@see GradeLevel} has it
     * @param  list<string>  $mailDomains
     * @param  int  $numberWidth of the school's student numbers, as {@see usualWidth()} finds it
     * @param  array<string, string>  $others name or code of every other school of the district to its name
     */
    public function __construct(
        public string $name = '',
        public string $code = '',
        public string $country = 'US',
        public int $lowest = -1,
        public int $highest = 13,
        public array $mailDomains = [],
        public array $others = [],
        public int $numberWidth = 0,
    ) {}

    /**
     * Figures of a whole student number: where nearly all have as many and some begin with 0, a shorter one has lost
     * its zeros. Common practice, no source.
     *
     * @param  list<array{int, int, int}>  $widths a width, how many numbers have it, how many of these begin with 0
     * @return int 0 where they vary, are few, or never begin with 0
     */
    public static function usualWidth(array $widths): int
    {
        $all = array_sum(array_column($widths, 1));
        foreach ($widths as [$width, $count, $padded]) {
            if ($padded > 0 && $count >= 20 && $count >= 0.95 * $all) {
                return $width;
            }
        }

        return 0;
    }

    public function teaches(GradeLevel $grade): bool
    {
        return $grade->order >= $this->lowest && $grade->order <= $this->highest;
    }

    /** Whether a cell means this school: by its name or code, or the beginning of one ("Lanternfield"). */
    public function isNamed(string $cell): bool
    {
        $key = NameKey::of($cell);
        $name = NameKey::of($this->name);

        return $key === $name ||
            $key === NameKey::of($this->code) ||
            (strlen($key) >= 5 && (str_starts_with($name, "$key ") || str_starts_with($key, "$name ")));
    }

    /** The other school that a cell names, or ''. */
    public function otherSchool(string $cell): string
    {
        $key = NameKey::of($cell);
        if ($key === '' || $key === NameKey::of($this->name) || $key === NameKey::of($this->code)) {
            return '';
        }
        foreach ($this->others as $known => $name) {
            if (NameKey::of((string) $known) === $key) {
                return $name;
            }
        }

        return '';
    }

    /** "K to 5". */
    public function grades(): string
    {
        return GradeLevel::of($this->lowest)->short() . ' to ' . GradeLevel::of($this->highest)->short();
    }
}
