<?php

declare(strict_types=1);

use Vantrel\Core\Mailroom\Attachment;
use Vantrel\Core\Mailroom\LetterBy;
use Vantrel\Core\Mailroom\LetterWish;
use Vantrel\Core\Mailroom\QuietHours;
use Vantrel\Core\Mailroom\Readers;
use Vantrel\Core\Mailroom\Template;
use Vantrel\Core\Plan\Refusal;

it('fills places for each receiver, and what is filled in is not filled again', function (): void {
    expect(
        Template::fill('Dear {{name}}, {{ children }} of {{section}}', [
            'name' => 'Layla {{school}}',
            'children' => 'Noor, Kit',
            'section' => '3 Heron',
            'school' => 'x',
        ]),
    )
        ->toBe('Dear Layla {{school}}, Noor, Kit of 3 Heron')
        ->and(Template::fill('{{nobody}} {x} {{}}', []))
        ->toBe('{{nobody}} {x} {{}}');
});

it('refuses what is not whole, naming the field', function (array $texts, ?string $field): void {
    try {
        new LetterWish($texts, Template::fields(Readers::Guardians, false));
        $refused = 'taken';
    } catch (Refusal $e) {
        $refused = $e->field;
    }
    expect($refused)->toBe($field);
})->with([
    [['en' => ['subject' => " \r\n", 'body' => 'x']], 'subject'],
    [['en' => ['subject' => 'x', 'body' => '  ']], 'body'],
    [['en' => ['subject' => 'x {{who}}', 'body' => 'x']], 'subject'],
    [['en' => ['subject' => 'x', 'body' => 'x {{ child name }}']], 'body'],
    [['en' => ['subject' => 'x', 'body' => str_repeat('x', 10_001)]], 'body'],
    [['en' => ['subject' => 'x', 'body' => 'x'], 'es' => ['subject' => 'x', 'body' => '']], 'body'],
    [['en' => ['subject' => 'x', 'body' => 'x'], 'de' => ['subject' => 'x', 'body' => 'x']], null],
    // There is no section where none is written to.
    [['en' => ['subject' => 'x {{section}}', 'body' => 'x']], 'subject'],
    [['en' => ['subject' => 'x {{name}}', 'body' => '{{children}} {{school}}']], 'taken'],
]);

it('is read in one’s own language where the writer has given it', function (): void {
    $wish = new LetterWish(
        [
            'en' => ['subject' => "Trip\nBcc: x", 'body' => 'Hello {{name}}'],
            'es' => ['subject' => 'Excursión', 'body' => 'Hola {{name}}'],
        ],
        ['name'],
    );
    expect([$wish->language('es'), $wish->language('fr'), $wish->language(null)])
        ->toBe(['es', 'en', 'en'])
        ->and($wish->body('es', ['name' => 'Layla']))
        ->toBe("Hola Layla\n")
        ->and($wish->subject('en', []))
        ->toBe('Trip Bcc: x');
});

it('lets nobody be woken: what falls into the quiet hours goes out at seven', function (
    string $at,
    string $zone,
    string $goes,
): void {
    expect(QuietHours::after($at, $zone, 20, 7))->toBe($goes);
})->with([
    ['2026-11-27 15:00:00', 'Europe/Berlin', '2026-11-27 15:00:00'],
    ['2026-11-27 18:59:59', 'Europe/Berlin', '2026-11-27 18:59:59'],
    ['2026-11-27 19:00:00', 'Europe/Berlin', '2026-11-28 06:00:00'],
    ['2026-11-27 23:30:00', 'Europe/Berlin', '2026-11-28 06:00:00'],
    ['2026-11-28 05:59:59', 'Europe/Berlin', '2026-11-28 06:00:00'],
    ['2026-11-28 06:00:00', 'Europe/Berlin', '2026-11-28 06:00:00'],
    // Over the change of the clock in the night to 28 March 2027.
    ['2027-03-27 22:00:00', 'Europe/Berlin', '2027-03-28 05:00:00'],
    ['2026-11-27 02:00:00', 'America/New_York', '2026-11-27 12:00:00'],
]);

it('keeps the quiet hours of a school, over midnight or within a day, or none', function (): void {
    $after = fn(string $at, int $from, int $to): string => QuietHours::after("2026-11-27 $at", 'UTC', $from, $to);
    expect($after('12:30:00', 12, 14))
        ->toBe('2026-11-27 14:00:00')
        ->and($after('14:00:00', 12, 14))
        ->toBe('2026-11-27 14:00:00')
        ->and($after('11:59:59', 12, 14))
        ->toBe('2026-11-27 11:59:59')
        ->and($after('23:00:00', 22, 0))
        ->toBe('2026-11-28 00:00:00')
        ->and($after('03:00:00', 3, 3))
        ->toBe('2026-11-27 03:00:00');
});

it('finds the way a letter goes to each', function (): void {
    $via = fn(LetterBy $by, bool $address, bool $bounced, bool $number): ?string => $by->via(
        $address,
        $bounced,
        $number,
    );
    // Address, came back, number: by mail, as a text, by either.
    $table = [
        [true, false, true, 'mail', 'text', 'mail'],
        [true, false, false, 'mail', null, 'mail'],
        [true, true, true, 'mail', 'text', 'text'],
        [true, true, false, 'mail', null, 'mail'],
        [false, false, true, null, 'text', 'text'],
        [false, false, false, null, null, null],
    ];
    foreach ($table as [$address, $bounced, $number, $mail, $text, $either]) {
        expect($via(LetterBy::Mail, $address, $bounced, $number))
            ->toBe($mail)
            ->and($via(LetterBy::Text, $address, $bounced, $number))
            ->toBe($text)
            ->and($via(LetterBy::Either, $address, $bounced, $number))
            ->toBe($either);
    }
});

it('keeps a text short, without a line of its own, and says whose it is', function (): void {
    $wish = fn(string $body, LetterBy $by): LetterWish => new LetterWish(
        ['en' => ['subject' => '', 'body' => $body]],
        ['name', 'school'],
        $by,
    );
    $text = $wish('Buses are late, {{name}}.', LetterBy::Text);
    expect($text->text('en', ['name' => 'Layla', 'school' => 'Lanternfield']))
        ->toBe('Lanternfield: Buses are late, Layla.')
        ->and($text->subject('en', ['name' => 'Layla', 'school' => 'Lanternfield']))
        ->toBe('Buses are late, Layla.');
    expect(fn() => $wish(str_repeat('x', 601), LetterBy::Text))
        ->toThrow(Refusal::class, 'at most 600')
        ->and(fn() => $wish('x', LetterBy::Either))
        ->toThrow(Refusal::class, 'what it is about');
});

it('takes a file for what is in it, and by a name that does nothing', function (): void {
    $of = fn(string $name, string $head, int $size = 10): string => Attachment::of($name, $head, $size)->name;
    expect($of('C:\\trip\\Map of the harbor.PDF', '%PDF-1.7'))
        ->toBe('Map of the harbor.pdf')
        ->and($of("a\r\nBcc: x@y.example\u{202E}gpj.exe", "\xFF\xD8\xFF\xE0"))
        ->toBe('a Bcc: x@y.examplegpj.jpg')
        ->and($of('../../.pdf', '%PDF-1.7'))
        ->toBe('file.pdf')
        ->and(Attachment::of('x', "\x89PNG\r\n\x1A\n", 10)->type)
        ->toBe('image/png');
    expect(fn() => $of('page.pdf', '<html>'))
        ->toThrow(Refusal::class, '“page.pdf” is no PDF')
        ->and(fn() => $of('big.pdf', '%PDF-1.7', Attachment::BYTES + 1))
        ->toThrow(Refusal::class, 'larger than 2 MB');
});

it('fills in the section only where one is written to, and children only for their guardians', function (): void {
    expect(Template::fields(Readers::Guardians, true))
        ->toBe(['name', 'school', 'children', 'section'])
        ->and(Template::fields(Readers::Students, false))
        ->toBe(['name', 'school'])
        ->and(Template::fields(Readers::Staff, true))
        ->toBe(['name', 'school', 'section']);
});
