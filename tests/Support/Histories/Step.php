<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

/** One thing somebody does: what, and three numbers that choose whom and how. */
final readonly class Step
{
    // prettier-ignore
    public const KINDS = [
        'list' => 14, 'look-list' => 6, 'merge' => 10, 'look-merge' => 6, 'archive' => 5, 'look-archive' => 3,
        'turn' => 3, 'look-turn' => 2, 'open-code' => 5, 'close-code' => 5, 'join' => 5, 'move' => 7, 'edit' => 6,
        'number' => 6, 'cards' => 4, 'apply' => 16, 'undo' => 18, 'redo' => 8, 'sign-in' => 2,
    ];

    public function __construct(public int $actor, public string $kind, public int $a, public int $b, public int $c) {}

    public function __toString(): string
    {
        return "$this->actor:$this->kind($this->a,$this->b,$this->c)";
    }

    public static function parse(string $step): self
    {
        preg_match('/^(\d+):([a-z-]+)\((\d+),(\d+),(\d+)\)$/', $step, $m);

        return new self((int) $m[1], $m[2], (int) $m[3], (int) $m[4], (int) $m[5]);
    }
}
