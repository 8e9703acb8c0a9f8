<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\NoticeKind;

/** A notice, a date or work, as its writer sees it. */
final readonly class NoticeLine extends Resource
{
    /**
     * @param  string  $day YYYY-MM-DD, '' of a notice
     * @param  array<string, string>  $titles by tag, in other languages
     * @param  array<string, string>  $bodies the same
     * @param  int  $seen how many have seen it
     * @param  int  $missing of work that has been gone through: how many have not handed it in
     */
    public function __construct(
        public string $id,
        public NoticeKind $kind,
        public string $title,
        public string $body,
        public string $day,
        public bool $guardiansOnly,
        public array $titles,
        public array $bodies,
        public string $by,
        public string $madeAt,
        public int $seen,
        public bool $goneThrough,
        public int $missing,
        public int $version,
    ) {}
}
