<?php

declare(strict_types=1);

use Vantrel\Core\PrintRoom\CardFace;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\FaceText;

/** What is wrong with a face, in words; '' for nothing. */
function flawsOf(CardFace $face, float $width, float $height): string
{
    $quiet = ($face->square * 4) / 37 - 0.001;
    $square = [
        $face->squareX - $quiet,
        $face->squareY - $quiet,
        $face->squareX + $face->square + $quiet,
        $face->squareY + $face->square + $quiet,
    ];
    $boxes = ['the square' => $square];
    foreach ($face->lines as $line) {
        $boxes[$line->what->value] = [$line->x, $line->y, $line->x + $line->width, $line->y + $line->height()];
        if ($line->size < CardFace::LEAST) {
            return "{$line->what->value} is set in $line->size points";
        }
    }
    foreach ($boxes as $name => [$left, $top, $right, $bottom]) {
        if ($left < -0.001 || $top < -0.001 || $right > $width + 0.001 || $bottom > $height + 0.001) {
            return "$name leaves the card";
        }
        foreach ($boxes as $other => $box) {
            if (
                $other !== $name &&
                $left < $box[2] - 0.001 &&
                $box[0] < $right - 0.001 &&
                $top < $box[3] - 0.001 &&
                $box[1] < $bottom - 0.001
            ) {
                return "$name lies over $other";
            }
        }
    }
    foreach ([FaceText::Name, FaceText::UserName, FaceText::Secret] as $needed) {
        if ($face->line($needed) === null) {
            return "there is no {$needed->value}";
        }
    }

    return $face->square < 20 ? 'the square is too small' : '';
}

it('sets who it is and how they sign in on every card, beside a square that a camera reads', function (
    CardLayout $layout,
): void {
    $sheet = $layout->sheet();
    $texts = [FaceText::Name, FaceText::Place, FaceText::UserName, FaceText::Secret];
    $set = 0;
    // In one line each, and any of them over two.
    foreach (range(0, 15) as $which) {
        $twice = array_values(
            array_filter($texts, fn(int $i): bool => ($which & (1 << $i)) !== 0, ARRAY_FILTER_USE_KEY),
        );
        $face = CardFace::of($sheet->cardWidth, $sheet->cardHeight, $twice);
        if ($face !== null) {
            $set++;
            expect(flawsOf($face, $sheet->cardWidth, $sheet->cardHeight))->toBe('', "$layout->value, $which");
        }
    }
    expect($set)->toBeGreaterThanOrEqual(4)->and(CardFace::of($sheet->cardWidth, $sheet->cardHeight))->not->toBeNull();
})->with(
    fn(): array => array_values(array_filter(CardLayout::cases(), fn(CardLayout $l): bool => $l !== CardLayout::Own)),
);

it('holds for any size there can be, or says that nothing fits', function (): void {
    mt_srand(7);
    $none = 0;
    foreach (range(1, 3000) as $_) {
        $width = 45 + mt_rand(0, 2000) / 10;
        $height = 25 + mt_rand(0, 1500) / 10;
        $face = CardFace::of($width, $height, mt_rand(0, 3) === 0 ? [FaceText::Name, FaceText::Secret] : []);
        if ($face === null) {
            $none++;
        } elseif (flawsOf($face, $width, $height) !== '') {
            $this->fail("$width x $height: " . flawsOf($face, $width, $height));
        }
    }
    expect($none)->toBeLessThan(300);
});

it('leaves out the less needed first, and sets the full card in full sizes', function (): void {
    $full = CardFace::of(90.0, 54.0);
    expect(count($full?->lines ?? []))
        ->toBe(8)
        ->and($full?->line(FaceText::Name)?->size)
        ->toBeGreaterThanOrEqual(12.5)
        ->and($full?->hint)
        ->toBeTrue();
    $label = CardFace::of(66.675, 25.4);
    expect($label?->line(FaceText::School))
        ->toBeNull()
        ->and($label?->line(FaceText::UserLabel))
        ->toBeNull()
        ->and(CardFace::of(30.0, 30.0))
        ->toBeNull()
        ->and(CardFace::of(200.0, 20.0))
        ->toBeNull();
});
