<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use DateTimeImmutable;
use Vantrel\Core\Guardians\Hears;
use Vantrel\Core\Records\NoticeKind;

/** What one guardian is told of one child in one mail. */
final readonly class Digest
{
    /** Days back that the first one of somebody tells of. */
    public const FIRST = 7;

    /** Lines under one heading: a mail is a look at what there is, and mail programs cut long ones. */
    public const MOST = 40;

    /** Characters of a notice. */
    public const MOST_BODY = 500;

    /**
     * @param  list<BoardItem>  $missing
     * @param  list<BoardItem>  $coming
     * @param  list<BoardItem>  $new written since the last one
     */
    private function __construct(public array $missing, public array $coming, public array $new) {}

    /**
     * @param  list<BoardItem>  $items all there is about the child
     * @param  string  $from UTC instant up to which the last one told; not told again
     * @param  string  $until UTC instant up to which this one tells
     * @param  string  $today the day at the school
     */
    public static function of(array $items, Hears $often, string $from, string $until, string $today): self
    {
        $board = Board::of($items, $today);
        $ahead = (new DateTimeImmutable($today))
            ->modify($often === Hears::Weekly ? '+8 days' : '+2 days')
            ->format('Y-m-d');

        return new self(
            $board->missing,
            array_values(array_filter($board->coming, fn(BoardItem $i): bool => $i->day <= $ahead)),
            array_values(
                array_filter(
                    $items,
                    fn(BoardItem $i): bool => $i->kind === NoticeKind::Notice &&
                        $i->madeAt > $from &&
                        $i->madeAt <= $until,
                ),
            ),
        );
    }

    /** What a mail says of a notice: its beginning, to the end of a word. */
    public static function beginning(string $body): string
    {
        $body = trim($body);
        if (mb_strlen($body) <= self::MOST_BODY) {
            return $body;
        }
        $cut = mb_substr($body, 0, self::MOST_BODY);
        $word = (string) preg_replace('/\s+\S*$/u', '', $cut);

        // Some scripts write without spaces, and so do long addresses.
        return (mb_strlen($word) > self::MOST_BODY / 2 ? $word : $cut) . ' …';
    }

    /**
     * @param  list<BoardItem>  $items under one heading
     * @return list<BoardItem> those that a mail has room for
     */
    public static function shown(array $items): array
    {
        return array_slice($items, 0, self::MOST);
    }

    /** @param  list<BoardItem>  $items under one heading */
    public static function leftOut(array $items): int
    {
        return count($items) - count(self::shown($items));
    }

    /** Whether a mail of it leaves anything out. */
    public function isCut(): bool
    {
        foreach ([$this->missing, $this->coming, $this->new] as $items) {
            if (self::leftOut($items) > 0) {
                return true;
            }
            foreach ($items as $item) {
                if (mb_strlen(trim($item->body)) > self::MOST_BODY) {
                    return true;
                }
            }
        }

        return false;
    }

    /** Nothing is sent where there is nothing to say. */
    public function isEmpty(): bool
    {
        return $this->missing === [] && $this->coming === [] && $this->new === [];
    }
}
