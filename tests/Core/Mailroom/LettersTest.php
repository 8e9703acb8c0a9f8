<?php

declare(strict_types=1);

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
    expect(QuietHours::after($at, $zone))->toBe($goes);
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

it('fills in the section only where one is written to, and children only for their guardians', function (): void {
    expect(Template::fields(Readers::Guardians, true))
        ->toBe(['name', 'school', 'children', 'section'])
        ->and(Template::fields(Readers::Students, false))
        ->toBe(['name', 'school'])
        ->and(Template::fields(Readers::Staff, true))
        ->toBe(['name', 'school', 'section']);
});
