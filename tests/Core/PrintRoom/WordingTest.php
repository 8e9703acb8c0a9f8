<?php

declare(strict_types=1);

use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\LetterKind;
use Vantrel\Core\PrintRoom\Wording;
use Vantrel\Core\PrintRoom\Wordings;
use Vantrel\Core\Records\LetterWording;
use Vantrel\Core\Values\Language;

/** @return array<string, array<string, string>> texts by kind */
function letterTexts(string $language): array
{
    return json_decode((string) file_get_contents(__DIR__ . "/../../../resources/letters/$language.json"), true);
}

/** @param  array<string, array<string, string>>  $own by language */
function wordings(LetterKind $kind, array $own = []): Wordings
{
    $languages = [];
    foreach (Language::WRITTEN as $language) {
        $languages[$language] = Wording::of($kind, letterTexts($language)[$kind->value], $own[$language] ?? []);
    }

    return new Wordings($kind, $languages);
}

it('says everything in every language, with the same to fill in', function (string $language): void {
    foreach (LetterKind::cases() as $kind) {
        $english = letterTexts('en')[$kind->value];
        $texts = letterTexts($language)[$kind->value] ?? [];
        expect(array_keys($texts))
            ->toBe(array_keys($english))
            ->and(array_keys($kind->texts()))
            ->toEqualCanonicalizing(array_keys($english));
        foreach ($texts as $name => $text) {
            $fields = Wording::fieldsOf($text);
            sort($fields);
            $said = Wording::fieldsOf($english[$name]);
            sort($said);
            expect($fields)
                ->toBe($said, "$kind->value.$name in $language")
                ->and(array_diff($fields, $kind->fields()))
                ->toBe([])
                ->and($name === 'note' || $text !== '')
                ->toBeTrue();
        }
    }
})->with(Language::WRITTEN);

// No word of another language on a page: by script where a language has its own, by words where it has not.
it('has no text in another language', function (string $language, string $own): void {
    foreach (LetterKind::cases() as $kind) {
        foreach (letterTexts($language)[$kind->value] as $name => $text) {
            $letters = (string) preg_replace('/\{\w+\}/', '', $text);
            if ($letters !== '') {
                expect(preg_match($own, $letters))->toBe(1, "$kind->value.$name in $language");
                expect(preg_match('/[a-z]{3,}/i', in_array($language, ['ar', 'uk', 'zh'], true) ? $letters : ''))->toBe(
                    0,
                    "$kind->value.$name in $language",
                );
            }
        }
    }
})->with([['ar', '/\p{Arabic}/u'], ['uk', '/\p{Cyrillic}/u'], ['zh', '/\p{Han}/u']]);

it('repeats no text of English, where it does not mean the same word', function (string $language): void {
    foreach (LetterKind::cases() as $kind) {
        $same = array_keys(
            array_filter(array_intersect_assoc(letterTexts($language)[$kind->value], letterTexts('en')[$kind->value])),
        );
        // "Date", "Signature" and "Code" are French too.
        expect(array_diff($same, ['slip_date', 'slip_signature', 'code_label']))->toBe([]);
    }
})->with(['es', 'fr', 'vi']);

it('fills in what is known, and leaves the rest as it stands', function (): void {
    $wording = Wording::of(LetterKind::Family, ['heading' => 'To {student} of {school}, {unknown}']);
    expect($wording->text('heading', ['student' => 'Noor {school}', 'school' => 'Lanternfield']))->toBe(
        'To Noor {school} of Lanternfield, {unknown}',
    );
});

it('takes a school’s own words, and gives ours back for an empty text', function (): void {
    $wording = Wording::of(LetterKind::Family, letterTexts('en')['family']);
    $mine = $wording->with(['intro' => "  Our   words\nover two lines ", 'note' => 'Ask us.']);
    expect($mine->own)
        ->toBe(['intro' => "Our words\nover two lines", 'note' => 'Ask us.'])
        ->and($mine->with(['intro' => '', 'note' => ' '])->own)
        ->toBe([])
        ->and($wording->with(['intro' => $wording->standard['intro']])->own)
        ->toBe([]);
});

it('refuses words that lead nowhere, ask for what nobody knows, or never end', function (
    string $name,
    string $text,
    string $said,
): void {
    $wording = Wording::of(LetterKind::Family, letterTexts('en')['family']);
    expect(fn() => $wording->with([$name => $text]))->toThrow(Refusal::class, $said);
})->with([
    ['new_1', 'Ask at the office.', 'Leave {address} in'],
    ['intro', 'Dear {parent}', 'Nothing is known to fill in for {parent}'],
    ['note', str_repeat('word ', 200), 'letters long; 700 fit'],
    ['elsewhere', 'x', 'has no text “elsewhere”'],
]);

it('knows which languages lack what a school has written in another', function (): void {
    $wordings = wordings(LetterKind::Family, [
        'en' => ['note' => 'Ask us.'],
        'es' => ['note' => 'Pregunten.', 'intro' => 'Hola.'],
    ]);
    expect($wordings->lacking()['en'])
        ->toBe(['intro'])
        ->and($wordings->lacking()['uk'])
        ->toEqualCanonicalizing(['note', 'intro'])
        ->and($wordings->lacking())
        ->not->toHaveKey('es');
    expect(fn() => $wordings->mustBeWhole(['es', 'uk']))->toThrow(Refusal::class, 'missing in Ukrainian');
    $wordings->mustBeWhole(['es']);
    wordings(LetterKind::Family)->mustBeWhole(Language::WRITTEN);
});

it('keeps words as a plan: none where nothing changes, an update where there is a row', function (): void {
    $ids = new Ids('01J00000000000000000000000');
    $wordings = wordings(LetterKind::Handout);
    expect($wordings->write('s', 'es', ['note' => ''], null, $ids)->isEmpty())->toBeTrue();
    $plan = $wordings->write('s', 'es', ['note' => 'Pregunta.'], null, $ids);
    expect($plan->changes)
        ->toHaveCount(1)
        ->and($plan->changes[0]->after['texts'])
        ->toBe('{"note":"Pregunta."}')
        ->and($plan->sentence)
        ->toBe('Changes the words of the Handout in Spanish.');
    $row = new LetterWording('w', 3, [
        'school_id' => 's',
        'kind' => 'handout',
        'language' => 'es',
        'texts' => '{"note":"x"}',
    ]);
    $back = wordings(LetterKind::Handout, ['es' => ['note' => 'x']])->write('s', 'es', ['note' => ''], $row, $ids);
    expect($back->changes[0]->after['texts'])->toBe('{}');
});
