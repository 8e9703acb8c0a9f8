<?php

declare(strict_types=1);

// mutates: Accounts

use Vantrel\Core\Accounts\Totp;
use Vantrel\Core\Codes\KeyedStream;

// RFC 6238, Appendix B: eight figures, the three hash functions each with the seed of its length.
it('gives the codes of RFC 6238', function (int $time, string $sha1, string $sha256, string $sha512): void {
    $seed = fn(int $bytes): Totp => new Totp(substr(str_repeat('1234567890', 7), 0, $bytes));
    expect($seed(20)->at($time, 8))
        ->toBe($sha1)
        ->and($seed(32)->at($time, 8, 'sha256'))
        ->toBe($sha256)
        ->and($seed(64)->at($time, 8, 'sha512'))
        ->toBe($sha512);
})->with([
    [59, '94287082', '46119246', '90693936'],
    [1111111109, '07081804', '68084774', '25091201'],
    [1111111111, '14050471', '67062674', '99943326'],
    [1234567890, '89005924', '91819424', '93441116'],
    [2000000000, '69279037', '90698825', '38618901'],
    [20000000000, '65353130', '77737706', '47863826'],
]);

// RFC 4226, Appendix D: the codes of the counters 0 to 9.
it('gives the codes of RFC 4226', function (): void {
    $totp = new Totp('12345678901234567890');
    expect(array_map(fn(int $counter): string => $totp->at($counter * Totp::STEP), range(0, 9)))->toBe([
        '755224',
        '287082',
        '359152',
        '969429',
        '338314',
        '254676',
        '287922',
        '162583',
        '399871',
        '520489',
    ]);
});

// RFC 4648, 10: test vectors of Base32, here without padding.
it('writes Base32 as RFC 4648 does', function (string $bytes, string $text): void {
    expect((new Totp($bytes))->base32())->toBe($text);
})->with([
    ['f', 'MY'],
    ['fo', 'MZXQ'],
    ['foo', 'MZXW6'],
    ['foob', 'MZXW6YQ'],
    ['fooba', 'MZXW6YTB'],
    ['foobar', 'MZXW6YTBOI'],
]);

// oathtool of the OATH Toolkit (Debian package oathtool), an independent program.
it('agrees with oathtool on secrets and times drawn at random', function (): void {
    $random = new KeyedStream(str_repeat('k', 32), 'oathtool');
    for ($i = 0; $i < 25; $i++) {
        $totp = Totp::draw($random);
        $time = 1_600_000_000 + $random->below(1_000_000_000);
        expect($totp->at($time))->toBe(
            trim(
                outside([
                    'oathtool',
                    '--totp',
                    '--base32',
                    '--now',
                    gmdate('Y-m-d H:i:s', $time) . ' UTC',
                    $totp->base32(),
                ]),
            ),
        );
    }
});
