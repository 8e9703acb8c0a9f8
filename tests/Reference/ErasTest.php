<?php

declare(strict_types=1);

// mutates: Values

use Vantrel\Core\Values\CalendarDate;

// ICU's Japanese calendar, which shares nothing with our table of eras, writes the dates; we read them back.
it('reads dates of Japanese eras as ICU writes them', function (): void {
    $icu = new IntlDateFormatter(
        'ja_JP@calendar=japanese',
        IntlDateFormatter::FULL,
        IntlDateFormatter::NONE,
        'UTC',
        IntlDateFormatter::TRADITIONAL,
        'Gy年M月d日',
    );
    $day = new DateTimeImmutable('1915-01-01', new DateTimeZone('UTC'));
    for ($n = 0; $n < 2500; $n++, $day = $day->modify('+17 days')) {
        expect(CalendarDate::read((string) $icu->format($day), null))->toBe($day->format('Y-m-d'));
    }
});

it('knows no era that is none, and no year without one', function (string $written): void {
    expect(CalendarDate::read($written, null))->toBeNull();
})->with(['元年5月1日', '江戸3年5月1日', '平成27年13月4日', '平成2019年3月4日', '27年3月4日']);
