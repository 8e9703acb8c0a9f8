<?php

declare(strict_types=1);

namespace Tests\Support;

use Generator;

/**
 * Requests as a careless or hostile program would send them, made from the contract: each part of each request in turn
 * is of another kind, empty, huge, or of letters nobody thinks of, while the others are as the contract has them.
 */
final readonly class OddRequests
{
    private const ODD = [
        'nothing' => null,
        'empty' => '',
        'a space' => ' ',
        'a list' => [],
        'a list of lists' => [[[]]],
        'a list of null' => [null],
        'a record' => ['a' => ['b' => 'c']],
        'true' => true,
        'a negative number' => -1,
        'a number too large' => 9223372036854775807,
        'a fraction' => 0.1,
        'a number as words' => '1e309',
        'a zero byte' => "a\0b",
        'turned text' => "\u{202E}abc\u{2066}",
        'pictures' => "\u{1F468}\u{200D}\u{1F469}\u{200D}\u{1F467}",
        'lines' => "a\r\nb\r\nBcc: x@y.example",
        'signs of SQL' => "'; -- %_\\",
        'signs of HTML' => '<script>"&',
        'a path' => '../../etc/passwd',
        'a place to fill' => '{{name}}{{nothing}}{{',
        'an id of nothing' => '01ARZ3NDEKTSV4RRFFQ69G5FAV',
        'a day that is none' => '2026-02-30',
        'a day far off' => '9999-12-31',
        'a year below none' => '-0001-01-01',
        'a time that is none' => '2026-03-29T02:30',
    ];

    /** @param  array<string, mixed>  $contract as openapi.json has it */
    public function __construct(private array $contract) {}

    /**
     * @return Generator<int, array{string, string, array<string, mixed>, array<string, mixed>, string}> method,
     *     address, query, body, what is odd
     */
    public function all(): Generator
    {
        foreach ($this->contract['paths'] as $uri => $methods) {
            foreach ($methods as $method => $of) {
                $body = $this->follow($of['requestBody']['content']['application/json']['schema'] ?? []);
                $query = ['type' => 'object', 'properties' => []];
                foreach ($of['parameters'] ?? [] as $parameter) {
                    if ($parameter['in'] === 'query') {
                        $query['properties'][$parameter['name']] = $parameter['schema'];
                    }
                }
                $plain = [$this->plain($query, 'query'), $this->plain($body, 'body')];
                foreach ([$query, $body] as $which => $schema) {
                    foreach ($schema['properties'] ?? [] as $name => $part) {
                        foreach ($this->odd($this->follow($part)) as $what => $value) {
                            $sent = $plain;
                            $sent[$which] = [...(array) $sent[$which], $name => $value];
                            yield [strtoupper($method), $uri, (array) $sent[0], (array) $sent[1], "$name is $what"];
                        }
                    }
                }
            }
        }
    }

    /**
     * @param  array<string, mixed>  $schema
     * @return array<string, mixed> what is odd in it by what it is
     */
    private function odd(array $schema): array
    {
        $odd = self::ODD;
        $most = min((int) ($schema['maxLength'] ?? 3000), 40_000);
        $odd['as long as may be'] = str_repeat('x', $most);
        $odd['as long as may be, of wide letters'] = str_repeat("\u{1F600}", $most);
        $odd['as long as may be, of places'] = str_repeat('{{school}}', intdiv($most, 10));
        if (isset($schema['items'])) {
            foreach ($odd as $what => $value) {
                $odd["a list of one that is $what"] = [$value];
            }
            $odd['a long list'] = array_fill(0, 3000, $this->plain($this->follow($schema['items']), 'id'));
        }
        foreach ($schema['properties'] ?? [] as $name => $part) {
            foreach (self::ODD as $what => $value) {
                $odd["one whose $name is $what"] = [...(array) $this->plain($schema, ''), $name => $value];
            }
        }
        if (isset($schema['additionalProperties'])) {
            foreach (self::ODD as $what => $value) {
                $odd["one whose es is $what"] = ['es' => $value];
            }
            $odd['one of odd names'] = ["\u{202E}" => 'x', '' => 'y', '0' => 'z'];
        }

        return $odd;
    }

    /**
     * What the contract would have.
     *
     * @param  array<string, mixed>  $schema
     */
    private function plain(array $schema, string $name): mixed
    {
        $schema = $this->follow($schema);
        $type = (array) ($schema['type'] ?? 'string');

        if (in_array('object', $type, true)) {
            $parts = [];
            foreach ($schema['properties'] ?? [] as $of => $part) {
                $parts[$of] = $this->plain($part, $of);
            }

            return $parts;
        }

        return match (true) {
            isset($schema['enum']) => $schema['enum'][0],
            in_array('array', $type, true) => [$this->plain($schema['items'] ?? [], $name)],
            in_array('integer', $type, true), in_array('number', $type, true) => 1,
            in_array('boolean', $type, true) => true,
            str_contains($name, 'email') => 'ada@shoremail.example',
            preg_match('/day|date|_on$|begins|ends|from|until/', $name) === 1 => '2026-11-30',
            default => 'x',
        };
    }

    /**
     * @param  array<string, mixed>  $schema
     * @return array<string, mixed>
     */
    private function follow(array $schema): array
    {
        $name = $schema['$ref'] ?? null;

        return is_string($name) ? $this->contract['components']['schemas'][basename($name)] : $schema;
    }
}
