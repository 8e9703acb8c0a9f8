<?php

declare(strict_types=1);

use Vantrel\Core\Table\TextMark;

it('marks what begins a formula, in this cell or in one that another program makes of it', function (
    string $text,
    string $marked,
): void {
    expect(TextMark::on($text))->toBe($marked)->and(TextMark::off($marked))->toBe($text);
})->with([
    ['=1+2', "'=1+2"],
    [' @cmd', "' @cmd"],
    ['Ann;=HYPERLINK("x")', 'Ann;\'=HYPERLINK("x")'],
    ["Ann\t-2+3", "Ann\t'-2+3"],
    ['＝1', "'＝1"],
    ["O'Neill; Ann", "O'Neill; Ann"],
    ['12-14; 15', '12-14; 15'],
    ['', ''],
]);
