<?php

declare(strict_types=1);

use App\Models\School;
use App\PrintRoom\CardPrinter;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\RateLimiter;
use Tests\Support\World;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;

beforeEach(function (): void {
    $this->world = World::make();
    foreach (
        [
            'Noor Haddad',
            'Mateusz Żuławski',
            'Saoirse O’Dwyer',
            'Bartholomew-Maximilian Featherstonehaugh Cholmondeley',
            'Kai Wu',
        ]
        as $name
    ) {
        $this->world->student($name, $this->world->section);
    }
    $this->folder = scratch();
    $this->print = function (CardLayout $layout, CardOrder $order = CardOrder::Reading): string {
        $pdf = app(CardPrinter::class)->print(
            School::query()->findOrFail($this->world->school),
            [$this->world->section],
            [],
            $layout,
            $order,
            false,
            $this->world->as('lead'),
        );
        file_put_contents("$this->folder/cards.pdf", $pdf);

        return "$this->folder/cards.pdf";
    };
});

// ISO 216: A4 is 210 x 297 mm. ANSI/ASME Y14.1: Letter is 8.5 x 11 in. pdfinfo (poppler) gives points of 1/72 in.
it('prints on paper of the size it says, by pdfinfo', function (CardLayout $layout, float $width, float $height): void {
    preg_match('/Page size:\s+([\d.]+) x ([\d.]+) pts/', outside(['pdfinfo', ($this->print)($layout)]), $m);
    expect((float) $m[1])
        ->toEqualWithDelta(($width / 25.4) * 72, 0.1)
        ->and((float) $m[2])
        ->toEqualWithDelta(($height / 25.4) * 72, 0.1);
})->with([[CardLayout::A4, 210.0, 297.0], [CardLayout::Letter, 215.9, 279.4]]);

it('prints a QR that zbarimg reads from the page pdftoppm renders, and its address signs in', function (): void {
    outside(['pdftoppm', '-r', '150', '-png', ($this->print)(CardLayout::A4), "$this->folder/page"]);
    preg_match_all(
        '#^QR-Code:(\S+)/b\#(\S+)$#m',
        outside(['zbarimg', '-q', ...glob("$this->folder/page*.png") ?: []]),
        $codes,
    );
    expect($codes[2])
        ->toHaveCount(6)
        ->and(array_unique($codes[1]))
        ->toBe([rtrim((string) config('app.url'), '/')]);
    $people = [];
    foreach ($codes[2] as $token) {
        RateLimiter::clear('guest');
        $this->app['auth']->forgetGuards();
        $this->get("/b/$token")->assertRedirect('/');
        $people[] = auth()->id();
        auth()->logout();
    }
    expect(array_unique($people))->toHaveCount(6);
});

it('prints the passphrase that signs in, with the user name, by pdftotext', function (): void {
    $text = outside(['pdftotext', '-layout', ($this->print)(CardLayout::A4), '-']);
    expect($text)
        ->toContain('Mateusz Żuławski')
        ->toContain('3 Heron')
        ->toContain('noor.haddad')
        ->toContain('Lanternfield Primary');
    $raw = outside(['pdftotext', '-raw', "$this->folder/cards.pdf", '-']);
    preg_match('/noor\.haddad\s+Passphrase\s+([a-z]+ [a-z]+ [a-z]+)/', $raw, $m);
    $this->postJson('/api/sign-in', ['user_name' => 'Noor.Haddad', 'secret' => strtoupper($m[1])])
        ->assertOk()
        ->assertJsonPath('me.name', 'Noor Haddad');
});

it('embeds its fonts as subsets, and no core font', function (): void {
    $fonts = outside(['pdffonts', ($this->print)(CardLayout::A4)]);
    expect($fonts)->toContain('AtkinsonHyperlegibleNext')->toContain('SourceSerif4')->not->toContain('Helvetica');
    foreach (array_slice(explode("\n", trim($fonts)), 2) as $line) {
        expect($line)->toMatch('/yes\s+yes\s+yes\s+\d+\s+\d+$/');
    }
});

it('sets every card inside its box and no text under 8 points, by the coordinates in the PDF', function (): void {
    preg_match_all(
        '/<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]*)</',
        outside(['pdftotext', '-bbox', ($this->print)(CardLayout::A4), '-']),
        $words,
        PREG_SET_ORDER,
    );
    expect(count($words))->toBeGreaterThan(60);
    foreach ($words as [, $x0, $y0, $x1, $y1, $word]) {
        [$left, $top, $right, $bottom] = array_map(fn(string $p): float => ((float) $p / 72) * 25.4, [
            $x0,
            $y0,
            $x1,
            $y1,
        ]);
        // The cards of 90 x 54 mm stand 2 by 5 in the middle of the page: 15 mm from the left, 13.5 from the top.
        $column = (int) floor(($left - 15) / 90);
        $row = (int) floor(($top - 13.5) / 54);
        expect($column)
            ->toBeIn([0, 1], "$word at $left, $top mm")
            ->and($row)
            ->toBeIn([0, 1, 2, 3, 4], "$word at $left, $top mm")
            ->and($right)
            ->toBeLessThanOrEqual(15 + ($column + 1) * 90)
            ->and($bottom)
            ->toBeLessThanOrEqual(13.5 + ($row + 1) * 54)
            ->and($bottom - $top)
            ->toBeGreaterThan((8 / 72) * 25.4 * 0.9);
    }
});

it('writes no passphrase and no token anywhere but on the cards', function (): void {
    ($this->print)(CardLayout::A4);
    $raw = outside(['pdftotext', '-raw', "$this->folder/cards.pdf", '-']);
    preg_match_all('/Passphrase\s+([a-z]+ [a-z]+ [a-z]+)/', $raw, $m);
    $stored = json_encode(
        [
            DB::table('sign_ins')->get(),
            DB::table('badges')->get(),
            DB::table('ledger_changes')->get(),
            DB::table('ledger_entries')->get(),
        ],
        JSON_THROW_ON_ERROR,
    );
    expect($m[1])->toHaveCount(6);
    foreach ($m[1] as $passphrase) {
        expect($stored)->not->toContain($passphrase);
    }
});
