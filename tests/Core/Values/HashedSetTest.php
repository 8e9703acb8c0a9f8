<?php

declare(strict_types=1);

use Vantrel\Core\Values\HashedSet;

it('has every word it was made of, and no other', function (): void {
    $words = array_map(fn(int $n): string => "word $n", range(1, 2000));
    $set = HashedSet::of([...$words, 'word 1']);
    expect(strlen($set->bytes()))->toBe(5 * 2000);
    $read = new HashedSet($set->bytes());
    foreach ($words as $i => $word) {
        expect($read->has($word))->toBeTrue()->and($read->has("other $i"))->toBeFalse();
    }
    expect(HashedSet::of([])->has('word 1'))->toBeFalse();
});

it('takes no bytes that are no set', function (): void {
    expect(fn() => new HashedSet('abcd'))->toThrow(InvalidArgumentException::class);
});
