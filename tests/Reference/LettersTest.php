<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Codes\CodeSymbols;

beforeEach(function (): void {
    $this->world = World::make();
    $this->folder = scratch();
    $this->noor = $this->world->student('Noor Haddad', $this->world->section);
    $this->print = function (string ...$options): string {
        $out = "$this->folder/letters.pdf";
        $code = Artisan::call('vantrel:letters', [
            '--section' => $this->world->section,
            '--out' => $out,
            ...array_combine(array_map(fn(string $o): string => "--$o", array_keys($options)), $options),
        ]);
        expect($code)->toBe(0, Artisan::output());

        return $out;
    };
});

// poppler's pdffonts, pdfinfo and pdftotext, and zbarimg, read what was printed.
it('embeds every face it uses, as subsets, and says the language of each page', function (string $language): void {
    $pdf = ($this->print)(language: $language);
    foreach (array_slice(explode("\n", trim(outside(['pdffonts', $pdf]))), 2) as $line) {
        expect($line)->toMatch('/yes\s+yes\s+yes\s+\d+\s+\d+$/')->not->toContain('Helvetica');
    }
    // ISO 32000-1, 14.9.2: in the catalogue, and around what stands on each page.
    $bytes = (string) file_get_contents($pdf);
    preg_match_all('/stream\r?\n(.*?)endstream/s', $bytes, $streams);
    $pages = array_filter(
        array_map(fn(string $s): string => (string) @gzuncompress(rtrim($s, "\r\n")), $streams[1]),
        fn(string $s): bool => str_contains($s, ' BDC'),
    );
    expect($pages)->not->toBeEmpty();
    foreach ($pages as $page) {
        expect($page)->toContain("/Span <</Lang ($language)>> BDC");
        expect(substr_count($page, 'BDC'))->toBe(substr_count($page, 'EMC'));
    }
})->with(['en', 'es', 'fr', 'ar', 'vi', 'uk', 'zh']);

it('keeps every word of every language within the margins, on A4 and Letter', function (
    string $language,
    string $paper,
): void {
    $pdf = ($this->print)(language: $language, paper: $paper);
    [$width, $height] = $paper === 'a4' ? [210.0, 297.0] : [215.9, 279.4];
    preg_match_all(
        '/<word xMin="([\d.-]+)" yMin="([\d.-]+)" xMax="([\d.-]+)" yMax="([\d.-]+)">/',
        outside(['pdftotext', '-bbox', $pdf, '-']),
        $words,
        PREG_SET_ORDER,
    );
    expect(count($words))->toBeGreaterThan(60);
    foreach ($words as [, $x0, $y0, $x1, $y1]) {
        expect(($x0 / 72) * 25.4)
            ->toBeGreaterThan(21.5)
            ->and(($x1 / 72) * 25.4)
            ->toBeLessThan($width - 21.5)
            ->and(($y0 / 72) * 25.4)
            ->toBeGreaterThan(10)
            ->and(($y1 / 72) * 25.4)
            ->toBeLessThan($height - 10);
    }
})->with(['en', 'es', 'fr', 'ar', 'vi', 'uk', 'zh'], ['a4', 'letter']);

it('prints squares that zbarimg reads: the door with the code, and the slip', function (): void {
    $pdf = ($this->print)(language: 'ar');
    outside(['pdftoppm', '-r', '150', '-png', $pdf, "$this->folder/page"]);
    $read = [];
    foreach (glob("$this->folder/page*.png") ?: [] as $page) {
        $read = [...$read, ...explode("\n", trim(outside(['zbarimg', '--nodbus', '-q', '--raw', $page])))];
    }
    $base = rtrim((string) config('app.url'), '/');
    $slips = array_map(
        fn(string $s): string => CodeSymbols::parse($s)->written(),
        DB::table('family_letters')->pluck('slip')->all(),
    );
    expect(array_values(array_intersect($read, $slips)))->toHaveCount(count($slips));
    foreach (preg_grep("#^$base/family\\##", $read) ?: [] as $link) {
        $this->postJson('/api/family/check', ['code' => substr($link, strlen("$base/family#"))])->assertOk();
    }
    expect(preg_grep("#^$base/family\\##", $read))->toHaveCount(count($slips));
});

it('sets a name in the script it is written in, and its letters joined', function (): void {
    foreach (['محمد بن عبد الله', '王小明', 'Nguyễn Thị Phương', 'Олександра'] as $name) {
        DB::table('people')
            ->where('id', $this->noor)
            ->update(['given_name' => $name, 'family_name' => '']);
        $pdf = ($this->print)(language: 'en');
        $text = outside(['pdftotext', '-raw', $pdf, '-']);
        // Joined letters stand in the file in the forms they are seen in; NFKC takes them back.
        $plain = (string) preg_replace(
            '/[\x{200E}\x{200F}\x{202A}-\x{202E}]/u',
            '',
            Normalizer::normalize($text, Normalizer::FORM_KC) ?: '',
        );
        foreach (explode(' ', $name) as $word) {
            $forms = [$word, strrev($word)];
            preg_match_all('/./us', $word, $letters);
            $forms[] = implode('', array_reverse($letters[0]));
            expect(array_filter($forms, fn(string $f): bool => str_contains($plain, $f)))->not->toBeEmpty($word);
        }
        expect(outside(['pdffonts', $pdf]))->not->toContain('no  no');
    }
});

it('refuses by name what a command line asks for wrongly', function (array $options, string $said): void {
    expect(Artisan::call('vantrel:letters', $options))->toBe(2)->and(Artisan::output())->toContain($said);
})->with([
    [['--school' => 'primary'], 'Say where the PDF goes'],
    [['--school' => 'nowhere', '--out' => '/tmp/x.pdf'], 'No such section or school'],
    [['--school' => 'primary', '--out' => '/tmp/x.pdf', '--kind' => 'handout'], '--kind is family or summer'],
    [['--school' => 'primary', '--out' => '/tmp/x.pdf', '--language' => 'de'], 'are among en, es'],
    [['--school' => 'primary', '--out' => '/tmp/x.pdf', '--paper' => 'a3'], '--paper is a4 or letter'],
]);
