<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\SectionKind;
use Vantrel\Core\Values\GradeLevel;

/** What a section is to be called and to hold. */
final readonly class SectionWish
{
    /**
     * @param  string|null  $grade stored code
     * @param  int|null  $seats null where it does not matter
     */
    private function __construct(
        public string $name,
        public SectionKind $kind,
        public ?string $grade,
        public ?string $period,
        public ?int $seats,
    ) {}

    /**
     * @param  string|null  $grade as typed
     *
     * @throws Refusal naming the field
     */
    public static function typed(
        string $name,
        SectionKind $kind,
        ?string $grade = null,
        ?string $period = null,
        ?int $seats = null,
    ): self {
        $name = NameReader::tidy($name);
        $level = $grade === null ? null : GradeLevel::read($grade);
        if ($grade !== null && $level === null) {
            throw new Refusal('That is not a grade. Write PK, K, or a number from 1 to 13.', 'grade');
        }
        $period = NameReader::tidy((string) $period);
        if ($name === '') {
            throw new Refusal('Give the section a name.', 'name');
        }
        if ($seats !== null && ($seats < 1 || $seats > 1000)) {
            throw new Refusal('Seats are a number from 1 to 1,000. Leave it empty where it does not matter.', 'seats');
        }

        return new self($name, $kind, $level?->code(), $period === '' ? null : $period, $seats);
    }

    /** @return array<string, string|int|null> the columns of the section */
    public function columns(): array
    {
        return [
            'name' => $this->name,
            'kind' => $this->kind->value,
            'grade' => $this->grade,
            'period' => $this->period,
            'seats' => $this->seats,
        ];
    }
}
