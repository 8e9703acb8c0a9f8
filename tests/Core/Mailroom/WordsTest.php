<?php

declare(strict_types=1);

use Vantrel\Core\Mailroom\Html;
use Vantrel\Core\Mailroom\Line;
use Vantrel\Core\Mailroom\Retry;

it('writes the same words as a page, with links and lists, and lets nothing in that is typed', function (): void {
    $text =
        "Hello <b>José</b> & all,\nsecond line\n\n- one\n- two https://a.example/x?y=1&z=2.\n\n" .
        'See (https://a.example/in#T-9_x) or javascript:alert(1) "now"';
    $html = Html::of($text, 'ar');
    expect($html)
        ->toContain('<html lang="ar" dir="rtl">')
        ->toContain('<p>Hello &lt;b&gt;José&lt;/b&gt; &amp; all,<br>second line</p>')
        ->toContain('<ul><li>one</li><li>two <a href="https://a.example/x?y=1&amp;z=2"')
        ->toContain('>https://a.example/x?y=1&amp;z=2</a>.</li></ul>')
        ->toContain('(<a href="https://a.example/in#T-9_x"')
        ->not->toContain('href="javascript')
        ->not->toContain('<script');
});

it('holds every word of the text in the page, whatever they are', function (): void {
    mt_srand(17);
    $signs = [
        '<',
        '>',
        '"',
        "'",
        '&',
        '&amp;',
        'é',
        '漢',
        "\u{1F600}",
        'https://a.example/',
        '- ',
        ' ',
        "\n",
        "\n\n",
        'a',
    ];
    for ($n = 0; $n < 500; $n++) {
        $text = '';
        for ($i = mt_rand(1, 30); $i > 0; $i--) {
            $text .= $signs[mt_rand(0, count($signs) - 1)];
        }
        $document = new DOMDocument();
        @$document->loadHTML(Html::of($text, 'en'));
        // Dashes begin the entries of lists.
        $words = fn(string $of): string => (string) preg_replace('/[-\s]+/u', '', $of);
        $body = $document->getElementsByTagName('body')->item(0)->textContent ?? '';
        expect($words($body))->toBe($words($text));
    }
});

it('keeps a line one line, and read as it is written', function (): void {
    expect(Line::of("Trip\r\nBcc: x@y.example"))
        ->toBe('Trip Bcc: x@y.example')
        ->and(Line::of("a\u{202E}b\u{2066}c\u{200B}d\u{FEFF}"))
        ->toBe('abcd')
        ->and(Line::of("550 bo\xEEte pleine"))
        ->toBe('550 bo?te pleine')
        ->and(Line::of("\0\x07 \u{2028}x\t y "))
        ->toBe('x y')
        // Marks that Arabic and Persian need stay.
        ->and(Line::of("می\u{200C}خواهم"))
        ->toBe("می\u{200C}خواهم")
        ->and(mb_strlen(Line::of(str_repeat('漢', 900))))
        ->toBe(250);
});

it('tries again ever more seldom, and gives up', function (): void {
    $waits = array_map(Retry::after(...), range(1, 9));
    expect($waits[0])->toBe(60)->and($waits[8])->toBeNull();
    $earlier = 0;
    foreach (array_filter($waits) as $wait) {
        expect($wait)->toBeGreaterThanOrEqual($earlier);
        $earlier = $wait;
    }
    // A day and a half in all.
    expect(array_sum(array_filter($waits)))
        ->toBeGreaterThan(24 * 3600)
        ->toBeLessThan(48 * 3600);
});

it('has every mail in all seven languages, with the same places to fill', function (): void {
    $read = fn(string $tag): array => (array) json_decode(
        (string) file_get_contents(dirname(__DIR__, 3) . "/resources/mails/$tag.json"),
        true,
        512,
        JSON_THROW_ON_ERROR,
    );
    $places = function (string $text): array {
        preg_match_all('/\{\{\w+\}\}/', $text, $m);
        sort($m[0]);

        return $m[0];
    };
    $english = $read('en');
    expect(Vantrel\Core\Values\Language::WRITTEN)->toHaveCount(7);
    foreach (Vantrel\Core\Values\Language::WRITTEN as $tag) {
        $words = $read($tag);
        expect(array_keys($words))->toEqualCanonicalizing(array_keys($english), $tag);
        foreach ($english as $key => $text) {
            expect($places($words[$key]))->toBe($places($text), "$tag $key");
        }
    }
});
