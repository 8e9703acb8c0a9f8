<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

/**
 * What stands where on a card of a size: the square that a camera reads, with its quiet zone, and beside or above it as
 * much text as there is room for. Lengths in mm from the card's top left corner.
 */
final readonly class CardFace
{
    /** No type is smaller, in points. */
    public const LEAST = 8.0;

    /** Side of the square: of 20 mm at least it is read from a photocopy too. */
    private const SQUARE = 24.0;

    private const LEAST_SQUARE = 20.0;

    /** Four modules of a symbol of 37, which holds an address and a badge (ISO/IEC 18004: version 5). */
    private const QUIET = 4 / 37;

    /** Height of the row of pictures, and what is left above it. */
    public const PICTURES = 9.0;

    private const PICTURES_WIDTH = 39.0;

    private const ABOVE = 1.5;

    /** Between the columns of a strip. */
    private const GUTTER = 4.0;

    /** Most of what is left over that goes between two groups. */
    private const AIR = 3.5;

    /** What is left out, the less needed first, and how small the rest may be for it: a share of the full sizes. */
    private const SETS = [
        [[], 0.9],
        [[FaceText::School], 0.85],
        [[FaceText::School, FaceText::UserLabel, FaceText::SecretLabel], 0.7],
        [[FaceText::School, FaceText::UserLabel, FaceText::SecretLabel, FaceText::Address], 0.6],
        [[FaceText::School, FaceText::UserLabel, FaceText::SecretLabel, FaceText::Address, FaceText::Place], 0.5],
    ];

    /** Those that belong together; the last stands at the foot. */
    private const GROUPS = [
        [FaceText::Name, FaceText::Place],
        [FaceText::UserLabel, FaceText::UserName],
        [FaceText::SecretLabel, FaceText::Secret],
        [FaceText::School, FaceText::Address],
    ];

    /**
     * @param  list<FaceLine>  $lines
     * @param  float  $square side of the square, without its quiet zone; 0 where the card has none
     * @param  bool  $hint whether there is room for a word below the square
     * @param  array{float, float}|null  $pictures left top corner of the row of pictures
     */
    private function __construct(
        public array $lines,
        public float $squareX,
        public float $squareY,
        public float $square,
        public bool $hint,
        public ?array $pictures = null,
    ) {}

    /**
     * @param  list<FaceText>  $twice what is set over two lines
     * @return self|null null where it does not fit so
     */
    public static function of(float $width, float $height, array $twice = [], ?CardShows $shows = null): ?self
    {
        $shows ??= CardShows::all();
        if (!$shows->square) {
            return self::unsquared($width, $height, $twice, $shows->without);
        }
        $beside = $width >= $height * 1.1;
        $pad = min(5.0, max(2.5, min($width, $height) * 0.092));
        $square = min(self::SQUARE, ($beside ? $height : $width) / (1 + 2 * self::QUIET));
        if ($square < self::LEAST_SQUARE) {
            return null;
        }
        $edge = max($pad, $square * self::QUIET);
        $hint = $beside && ($height - $square) / 2 >= $square * self::QUIET + FaceLine::leading(self::LEAST) + 1;
        $squareX = $beside ? $width - $edge - $square : ($width - $square) / 2;
        $squareY = $beside ? ($height - $square) / 2 : $height - $edge - $square;
        $quiet = $square * self::QUIET;
        $room = $beside
            ? [$squareX - $quiet - $pad, $height - 2 * $pad]
            : [$width - 2 * $pad, $squareY - $quiet - $pad];
        $row = $shows->pictures ? self::PICTURES + self::ABOVE : 0.0;
        $strip = self::isStrip($width, $height);
        if ($shows->pictures && ($strip || $room[0] < self::PICTURES_WIDTH)) {
            return null;
        }
        $lines = $strip
            ? self::strip($pad, $height, $room[0], $twice, $shows->without)
            : self::column($pad, $room[0], $room[1] - $row, $twice, $shows->without);

        return $lines === null
            ? null
            : new self(
                $lines,
                $squareX,
                $squareY,
                $square,
                $hint,
                $shows->pictures ? [$pad, $pad + $room[1] - self::PICTURES] : null,
            );
    }

    /**
     * @param  list<FaceText>  $twice
     * @param  list<FaceText>  $without
     */
    private static function unsquared(float $width, float $height, array $twice, array $without): ?self
    {
        $pad = min(5.0, max(2.5, min($width, $height) * 0.092));
        $lines = self::isStrip($width, $height)
            ? self::strip($pad, $height, $width - 2 * $pad, $twice, $without)
            : self::column($pad, $width - 2 * $pad, $height - 2 * $pad, $twice, $without);

        return $lines === null ? null : new self($lines, 0.0, 0.0, 0.0, false);
    }

    private static function isStrip(float $width, float $height): bool
    {
        return $width > 5 * $height;
    }

    public function line(FaceText $what): ?FaceLine
    {
        foreach ($this->lines as $line) {
            if ($line->what === $what) {
                return $line;
            }
        }

        return null;
    }

    /**
     * All below each other.
     *
     * @param  list<FaceText>  $twice
     * @param  list<FaceText>  $off by choice
     * @return list<FaceLine>|null
     */
    private static function column(float $pad, float $width, float $height, array $twice, array $off): ?array
    {
        foreach (self::SETS as [$without, $least]) {
            for ($share = 1.0; $share >= $least - 0.001; $share -= 0.05) {
                $groups = array_values(array_filter(self::groups([...$without, ...$off], $share, $width, $twice)));
                $need = array_sum(array_map(self::height(...), $groups));
                if ($need <= $height) {
                    return self::set($groups, $pad, $height - $need, $height);
                }
            }
        }

        return null;
    }

    /**
     * @param  list<FaceText>  $without
     * @param  list<FaceText>  $twice
     * @return list<list<FaceLine>>
     */
    private static function groups(array $without, float $share, float $width, array $twice): array
    {
        $groups = [];
        foreach (self::GROUPS as $texts) {
            $group = [];
            foreach (array_udiff($texts, $without, fn($a, $b): int => $a->value <=> $b->value) as $what) {
                $two = in_array($what, $twice, true);
                $size = max(self::LEAST, round($what->size() * $share * 2) / 2);
                $group[] = new FaceLine($what, 0, 0, $width, $two ? min($size, 9.0) : $size, $two ? 2 : 1);
            }
            $groups[] = $group;
        }

        return $groups;
    }

    /** @param  list<FaceLine>  $lines */
    private static function height(array $lines): float
    {
        return array_sum(array_map(fn(FaceLine $l): float => $l->height(), $lines));
    }

    /**
     * @param  list<list<FaceLine>>  $groups
     * @param  float  $left over, to go between them
     * @return list<FaceLine>
     */
    private static function set(array $groups, float $pad, float $left, float $height): array
    {
        $air = count($groups) < 2 ? 0.0 : min(self::AIR, $left / (count($groups) - 1));
        $lines = [];
        $y = $pad;
        foreach ($groups as $group) {
            $foot = $group !== [] && in_array($group[0]->what, self::GROUPS[3], true);
            // What is at the foot stands on it, whatever is left between.
            $y = $foot ? $pad + $height - self::height($group) : $y;
            foreach ($group as $line) {
                $lines[] = new FaceLine($line->what, $pad, $y, $line->width, $line->size, $line->lines);
                $y += $line->height();
            }
            $y += $air;
        }

        return $lines;
    }

    /**
     * Three columns beside each other: who, by which name, with which words.
     *
     * @param  list<FaceText>  $twice
     * @param  list<FaceText>  $off by choice
     * @return list<FaceLine>|null
     */
    private static function strip(float $pad, float $height, float $width, array $twice, array $off): ?array
    {
        $column = ($width - 2 * self::GUTTER) / 3;
        $lines = [];
        foreach (
            [
                [FaceText::Name, FaceText::Place, FaceText::School],
                [FaceText::UserLabel, FaceText::UserName],
                [FaceText::SecretLabel, FaceText::Secret, FaceText::Address],
            ]
            as $i => $texts
        ) {
            $group = [];
            foreach (array_udiff($texts, $off, fn($a, $b): int => $a->value <=> $b->value) as $what) {
                $two = in_array($what, $twice, true);
                $group[] = new FaceLine($what, 0, 0, $column, $two ? 9.0 : $what->size(), $two ? 2 : 1);
            }
            $y = ($height - self::height($group)) / 2;
            if ($y < $pad - 0.001) {
                return null;
            }
            foreach ($group as $line) {
                $lines[] = new FaceLine(
                    $line->what,
                    $pad + $i * ($column + self::GUTTER),
                    $y,
                    $column,
                    $line->size,
                    $line->lines,
                );
                $y += $line->height();
            }
        }

        return $lines;
    }
}
