<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use DateTimeImmutable;
use Vantrel\Core\Records\NoticeKind;
use Vantrel\Core\Records\WorkState;

/** What there is to be read about one child today: what is missing, what is coming, what is new. */
final readonly class Board
{
    /** Days ahead that somebody reads of. */
    public const AHEAD = 30;

    /** Days back from which work that is missing is still told of: a term. */
    public const BEHIND = 120;

    /** Days for which a notice is new. */
    public const FRESH = 14;

    /**
     * @param  list<BoardItem>  $missing work that has not been handed in, oldest first
     * @param  list<BoardItem>  $coming soonest first
     * @param  list<BoardItem>  $new newest first
     */
    private function __construct(public array $missing, public array $coming, public array $new) {}

    /**
     * @param  list<BoardItem>  $items
     * @param  string  $today the day at the school, YYYY-MM-DD
     */
    public static function of(array $items, string $today): self
    {
        $day = fn(int $days): string => (new DateTimeImmutable($today))->modify("$days days")->format('Y-m-d');
        $missing = $coming = $new = [];
        foreach ($items as $item) {
            if ($item->kind === NoticeKind::Notice) {
                if ($item->madeOn > $day(-self::FRESH)) {
                    $new[] = $item;
                }
                continue;
            }
            $settled = $item->result === WorkState::Done || $item->result === WorkState::Excused;
            if ($item->result === WorkState::Missing) {
                $missing[] = $item;
            } elseif (!$settled && $item->day >= $today && $item->day <= $day(self::AHEAD)) {
                $coming[] = $item;
            }
        }
        $soonest = fn(BoardItem $a, BoardItem $b): int => [$a->day, $a->id] <=> [$b->day, $b->id];
        usort($missing, $soonest);
        usort($coming, $soonest);
        usort($new, fn(BoardItem $a, BoardItem $b): int => [$b->madeOn, $b->id] <=> [$a->madeOn, $a->id]);

        return new self($missing, $coming, $new);
    }

    /** @return list<BoardItem> */
    public function all(): array
    {
        return [...$this->missing, ...$this->coming, ...$this->new];
    }
}
