<?php

declare(strict_types=1);

namespace Tests\Support;

use Generator;

/** Requests whose only purpose is to cost: each part of each body in turn as large, as many, as deep as can be sent. */
final readonly class HostileRequests
{
    /** @param  array<string, mixed>  $contract as openapi.json has it */
    public function __construct(private array $contract) {}

    /** @return Generator<int, array{string, string, array<string, mixed>, string}> method, address, body, its oddity */
    public function all(): Generator
    {
        foreach ($this->contract['paths'] as $uri => $methods) {
            foreach ($methods as $method => $of) {
                $parts = $of['requestBody']['content']['application/json']['schema']['properties'] ?? [];
                foreach (array_keys($parts) as $part) {
                    foreach (self::large() as $what => $value) {
                        yield [strtoupper($method), $uri, [(string) $part => $value], "$part: $what"];
                    }
                }
            }
        }
    }

    /** @return Generator<string, mixed> */
    private static function large(): Generator
    {
        $id = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
        yield 'a word of 900 KB' => str_repeat('ab ', 300_000);
        yield 'letters that are marks alone' => str_repeat("\u{0301}", 200_000);
        yield 'five thousand ids' => array_fill(0, 5_000, $id);
        yield 'thirty thousand ids' => array_fill(0, 30_000, $id);
        yield 'five thousand words' => array_fill(0, 5_000, str_repeat('x', 150));
        yield 'two hundred thousand nothings' => array_fill(0, 200_000, 0);
        yield 'a map of thirty thousand' => array_combine(
            array_map(fn(int $n): string => "k$n", range(1, 30_000)),
            array_fill(0, 30_000, 'x'),
        );
        $deep = 'x';
        for ($i = 0; $i < 400; $i++) {
            $deep = [$deep];
        }
        yield 'a list 400 deep' => $deep;
    }
}
