<?php

declare(strict_types=1);

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\SectionKind;
use Vantrel\Core\Sections\SectionWish;

it('reads what is typed of a section', function (): void {
    expect(SectionWish::typed("  3\u{00A0}Heron ", SectionKind::Homeroom, 'Grade 3', ' 2 ', 24)->columns())
        ->toBe(['name' => '3 Heron', 'kind' => 'homeroom', 'grade' => '03', 'period' => '2', 'seats' => 24])
        ->and(SectionWish::typed('Art', SectionKind::ClassSection, null, ' ')->columns())
        ->toBe(['name' => 'Art', 'kind' => 'class', 'grade' => null, 'period' => null, 'seats' => null]);
});

it('refuses what is none, and names the field', function (string $field, array $typed): void {
    try {
        SectionWish::typed(...$typed);
    } catch (Refusal $e) {
        expect($e->field)->toBe($field);

        return;
    }
    throw new RuntimeException('It was taken.');
})->with([
    'no name' => ['name', [" \u{200B}", SectionKind::Homeroom]],
    'no grade' => ['grade', ['Art', SectionKind::ClassSection, '14']],
    'no seats' => ['seats', ['Art', SectionKind::ClassSection, null, null, 0]],
    'too many' => ['seats', ['Art', SectionKind::ClassSection, null, null, 1001]],
]);
