<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

/** One kind of thing that waits for a person: how many, since when, and where to work on it. */
final readonly class Loop extends Resource
{
    public function __construct(
        public string $key,
        public string $area,
        public string $title,
        public string $detail,
        public int $count,
        public ?string $since,
        public string $path,
    ) {}

    /**
     * @param  array{string, string}  $one title and detail where one waits
     * @param  array{string, string}  $many where several do
     */
    public static function of(
        string $key,
        string $area,
        array $one,
        array $many,
        int $count,
        ?string $since,
        string $path,
    ): self {
        [$title, $detail] = $count === 1 ? $one : $many;

        return new self($key, $area, $title, $detail, $count, $since, $path);
    }
}
