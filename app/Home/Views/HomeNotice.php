<?php

declare(strict_types=1);

namespace App\Home\Views;

use App\Platform\Resource;
use Vantrel\Core\Mailroom\BoardItem;
use Vantrel\Core\Records\NoticeKind;

/** A notice, a date or work, as a student or guardian reads it. */
final readonly class HomeNotice extends Resource
{
    /**
     * @param  string  $section its name, '' for the whole school
     * @param  string  $day YYYY-MM-DD, '' of a notice
     */
    public function __construct(
        public string $id,
        public NoticeKind $kind,
        public string $title,
        public string $body,
        public string $section,
        public string $day,
    ) {}

    /**
     * @param  list<BoardItem>  $items
     * @return list<self>
     */
    public static function all(array $items): array
    {
        return array_map(
            fn(BoardItem $i): self => new self($i->id, $i->kind, $i->title, $i->body, $i->section, $i->day),
            $items,
        );
    }
}
