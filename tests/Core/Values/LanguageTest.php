<?php

declare(strict_types=1);

use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Values\Language;

it('reads a language as offices write it', function (string $typed, ?string $code): void {
    expect(Language::read($typed)?->code)->toBe($code);
})->with([
    ['es', 'es'],
    ['ES', 'es'],
    ['es-MX', 'es'],
    ['zh_Hant', 'zh'],
    ['spa', 'es'],
    ['Spanish', 'es'],
    ['ESPAÑOL', 'es'],
    ['Español', 'es'],
    ['Spanish; Castilian', 'es'],
    ['Spanish/English', 'es'],
    ['Chinese (Mandarin)', 'zh'],
    ['Tiếng Việt', 'vi'],
    ['tieng viet', 'vi'],
    ['العربية', 'ar'],
    ['українська', 'uk'],
    ['中文', 'zh'],
    ['Haitian Creole', 'ht'],
    ['Filipino', 'tl'],
    ['', null],
    ['yes', null],
    ['Klingon', null],
    ['-', null],
    ['12', null],
]);

it('has each code and name once, those it writes in first', function (): void {
    $all = Language::all();
    expect(array_slice(array_keys($all), 0, count(Language::WRITTEN)))
        ->toBe(Language::WRITTEN)
        ->and(array_unique($all))
        ->toHaveCount(count($all));
    foreach ($all as $code => $name) {
        expect(Language::read((string) $code)?->code)
            ->toBe($code)
            ->and(Language::read($name)?->name())
            ->toBe($name);
    }
});

it('shows others as much of a name as was decided, of the child first, then of the school', function (): void {
    expect(NameShown::for(null, 'initial')->of('Noor', 'Haddad'))
        ->toBe('Noor H.')
        ->and(NameShown::for('full', 'initial')->of('Noor Amal', 'Haddad'))
        ->toBe('Noor Amal Haddad')
        ->and(NameShown::for(null, 'full')->of('Noor', ''))
        ->toBe('Noor')
        ->and(NameShown::for('initial', 'full')->of('Keiko', 'de la Cruz'))
        ->toBe('Keiko C.')
        ->and(NameShown::for('nonsense', 'nonsense'))
        ->toBe(NameShown::Full);
});
