<?php

declare(strict_types=1);

namespace Tests\Support\OddLists;

use Random\Randomizer;

/** Writes children into rows as a list has been drawn. */
final class OddWriter
{
    private const WORDS = ['', 'First', 'Second', 'Third', 'Fourth', 'Fifth'];

    /** @var array<string, string> */
    private array $headings = [];

    /**
     * @param  array<string, list<string>>  $pool
     * @param  array<string, string>  $drawn
     */
    public function __construct(private readonly Randomizer $random, array $pool, private readonly array $drawn)
    {
        // What is said of a guardian is said of one: name, address and phone of the mother, or of the father.
        $whose = $random->getInt(0, count($pool['guardian']) - 1);
        foreach ($pool as $what => $some) {
            $this->headings[$what] = in_array($what, ['guardian', 'email', 'phone'], true)
                ? $some[$whose]
                : $some[$random->getInt(0, count($some) - 1)];
        }
        // A heading that says which name comes first is not written over the other order.
        if ($drawn['names'] === 'given first' && $this->headings['name'] === 'Nom et prénom') {
            $this->headings['name'] = 'Prénom et nom';
        }
        if ($drawn['dates'] === 'day first') {
            $this->headings['born'] .= ' (DD/MM/YYYY)';
        }
    }

    /**
     * @param  list<Child>  $children
     * @return list<list<string>>
     */
    public function rows(array $children): array
    {
        return match ($this->drawn['layout']) {
            'two-row header' => $this->twoRows($children),
            'blocks' => $this->blocks($children),
            'side by side' => $this->sideBySide($children),
            'guardian below' => $this->guardianBelow($children),
            'family once' => $this->familyOnce($children),
            'family in a row' => $this->inARow($children),
            'one column' => array_map(fn(array $r): array => [implode(';', $r)], [
                $this->header(),
                ...array_map($this->row(...), $children),
            ]),
            'wide blanks' => $this->wideBlanks($children),
            'titled' => [
                ['Lanternfield Elementary: students of 2026-27'],
                [],
                ...$this->damaged([$this->header(), ...array_map($this->row(...), $children)]),
            ],
            default => $this->damaged([$this->header(), ...array_map($this->row(...), $children)]),
        };
    }

    /** @return list<string> */
    private function columns(): array
    {
        return array_values(
            array_filter([
                $this->drawn['numbers'] === 'none' ? '' : 'number',
                ...$this->drawn['names'] === 'parts' ? ['family', 'given'] : ['name'],
                $this->drawn['dates'] === 'none' ? '' : 'born',
                'grade',
                in_array($this->drawn['layout'], ['blocks', 'side by side'], true) ? '' : 'section',
            ]),
        );
    }

    /** @return list<string> */
    private function header(): array
    {
        $guardians = [];
        foreach (range(0, 1) as $g) {
            if (
                $g < ['none' => 0, 'one' => 1, 'two' => 2][$this->drawn['guardians']] &&
                ($g === 0 || $this->drawn['layout'] !== 'guardian below')
            ) {
                foreach (['guardian', 'email', 'phone'] as $what) {
                    $guardians[] =
                        $this->drawn['guardians'] === 'two' && $this->drawn['layout'] !== 'guardian below'
                            ? 'Guardian ' .
                                ($g + 1) .
                                ' ' .
                                ['guardian' => 'Name', 'email' => 'E-mail', 'phone' => 'Phone'][$what]
                            : $this->headings[$what];
                }
            }
        }

        return [...array_map(fn(string $c): string => $this->headings[$c], $this->columns()), ...$guardians];
    }

    /** @return list<string> */
    private function row(Child $child): array
    {
        return [
            ...$this->own($child),
            ...$this->guardians($child, $this->drawn['layout'] === 'guardian below' ? [0] : [0, 1]),
        ];
    }

    /** @return list<string> */
    private function own(Child $child): array
    {
        return array_map(
            fn(string $what): string => match ($what) {
                'number' => $this->number($child->number),
                'family' => $child->family,
                'given' => $child->given,
                'name' => match ($this->drawn['names']) {
                    'comma' => "$child->family, $child->given",
                    'capitals' => mb_strtoupper("$child->family, $child->given"),
                    default => "$child->given $child->family",
                },
                'born' => $this->date($child->born),
                'grade' => $this->grade((int) $child->grade),
                default => $child->section,
            },
            $this->columns(),
        );
    }

    /**
     * @param  list<int>  $which
     * @return list<string>
     */
    private function guardians(Child $child, array $which): array
    {
        $cells = [];
        foreach ($which as $g) {
            if (isset($child->guardians[$g])) {
                $of = $child->guardians[$g];
                $digits = substr($of['phone'], 2);
                array_push(
                    $cells,
                    $of['name'],
                    $of['email'],
                    '(' . substr($digits, 0, 3) . ') ' . substr($digits, 3, 3) . '-' . substr($digits, 6),
                );
            }
        }

        return $cells;
    }

    private function number(string $number): string
    {
        return match ($this->drawn['numbers']) {
            'zeros lost' => ltrim($number, '0'),
            '#' => "#$number",
            'with ID' => "ID $number",
            'thousands' => number_format((int) $number),
            'float' => ltrim($number, '0') . '.0',
            default => $number,
        };
    }

    private function grade(int $grade): string
    {
        return match ($this->drawn['grades']) {
            '03' => sprintf('%02d', $grade),
            '3rd' => $grade . ['', 'st', 'nd', 'rd', 'th', 'th'][$grade],
            'Grade 3' => "Grade $grade",
            'Third' => self::WORDS[$grade],
            'Gr. 3' => "Gr. $grade",
            'G3' => "G$grade",
            '3.0' => "$grade.0",
            default => (string) $grade,
        };
    }

    private function date(string $iso): string
    {
        [$y, $m, $d] = array_map(intval(...), explode('-', $iso));

        return match ($this->drawn['dates']) {
            'US' => "$m/$d/$y",
            'day first' => sprintf('%02d/%02d/%04d', $d, $m, $y),
            'dots' => sprintf('%02d.%02d.%04d', $d, $m, $y),
            'name of the month' => date('M j, Y', (int) strtotime($iso)),
            'serial' => (string) (intdiv((int) strtotime("$iso UTC"), 86_400) + 25_569),
            'zulu' => "{$iso}T05:00:00.000Z",
            default => $iso,
        };
    }

    /**
     * @param  list<list<string>>  $rows the header first
     * @return list<list<string>>
     */
    private function damaged(array $rows): array
    {
        $half = intdiv(count($rows), 2);
        $at = (int) array_search($this->drawn['names'] === 'parts' ? 'given' : 'name', $this->columns(), true);

        return match ($this->drawn['damage']) {
            'total' => [...$rows, [], ['Total', (string) (count($rows) - 1)]],
            'page marks' => [
                ...array_slice($rows, 0, $half),
                ['Page 1 of 2'],
                ...array_slice($rows, $half),
                ['Page 2 of 2'],
            ],
            'blanks' => array_map(fn(array $r): array => array_map(fn(string $c): string => "\u{00A0}$c  ", $r), $rows),
            'header again' => [...array_slice($rows, 0, $half), $rows[0], ...array_slice($rows, $half)],
            'unknown columns' => array_map(
                fn(array $r, int $i): array => [
                    ...$r,
                    $i === 0 ? 'Bus' : 'R' . $i % 7,
                    $i === 0 ? 'Locker' : (string) (300 + $i),
                ],
                $rows,
                array_keys($rows),
            ),
            'marks' => array_map(
                fn(array $r, int $i): array => $i > 0 && $i % 4 === 0
                    ? [...array_slice($r, 0, $at), "$r[$at] (new)", ...array_slice($r, $at + 1)]
                    : $r,
                $rows,
                array_keys($rows),
            ),
            default => $rows,
        };
    }

    /**
     * @param  list<Child>  $children
     * @return list<list<string>>
     */
    private function twoRows(array $children): array
    {
        $own = count($this->columns());
        $n = ['none' => 0, 'one' => 1, 'two' => 2][$this->drawn['guardians']];
        $groups = ['Student', ...array_fill(0, $own - 1, '')];
        $header = array_map(fn(string $c): string => $this->headings[$c], $this->columns());
        for ($g = 1; $g <= $n; $g++) {
            array_push($groups, "Parent $g", '', '');
            array_push($header, 'Name', 'Email', 'Phone');
        }

        return $n === 0
            ? $this->damaged([$this->header(), ...array_map($this->row(...), $children)])
            : [['Contact sheet'], $groups, $header, ...array_map($this->row(...), $children)];
    }

    /**
     * @param  list<Child>  $children
     * @return list<list<string>>
     */
    private function blocks(array $children): array
    {
        $rows = [['Class lists'], []];
        foreach (array_chunk($children, 6) as $i => $some) {
            $rows[] = ['Homeroom: Room ' . ($i + 1) . '   Teacher: Ms. Vale'];
            $rows[] = $this->header();
            array_push($rows, ...array_map($this->row(...), $some));
            $rows[] = [];
        }

        return $rows;
    }

    /**
     * @param  list<Child>  $children
     * @return list<list<string>>
     */
    private function sideBySide(array $children): array
    {
        $half = (int) ceil(count($children) / 2);
        $width = count($this->header());
        $rows = [
            [...array_pad(['3A'], $width, ''), '', ...array_pad(['3B'], $width, '')],
            [...$this->header(), '', ...$this->header()],
        ];
        for ($i = 0; $i < $half; $i++) {
            $right = $children[$half + $i] ?? null;
            $rows[] = [
                ...$this->row($children[$i]),
                '',
                ...$right === null ? array_fill(0, $width, '') : $this->row($right),
            ];
        }

        return $rows;
    }

    /**
     * @param  list<Child>  $children
     * @return list<list<string>>
     */
    private function guardianBelow(array $children): array
    {
        $rows = [$this->header()];
        foreach ($children as $child) {
            $rows[] = $this->row($child);
            $rows[] = [...array_fill(0, count($this->columns()), ''), ...$this->guardians($child, [1])];
        }

        return $rows;
    }

    /**
     * @param  list<Child>  $children
     * @return list<list<string>>
     */
    private function familyOnce(array $children): array
    {
        $at = (int) array_search('family', $this->columns(), true);
        usort($children, fn(Child $a, Child $b): int => strcmp($a->family, $b->family));
        $rows = [$this->header()];
        $last = '';
        foreach ($children as $child) {
            $row = $this->row($child);
            $row[$at] = $child->family === $last ? '' : $row[$at];
            $last = $child->family;
            $rows[] = $row;
        }

        return $rows;
    }

    /**
     * @param  list<Child>  $children
     * @return list<list<string>>
     */
    private function inARow(array $children): array
    {
        $rows = [['Parent name', 'Parent email', 'Child 1 name', 'Child 1 grade', 'Child 2 name', 'Child 2 grade']];
        foreach ($children as $i => $child) {
            $rows[] = [
                $child->guardians[0]['name'],
                $child->guardians[0]['email'],
                "$child->given $child->family",
                $this->grade((int) $child->grade),
                '',
                '',
            ];
        }

        return $rows;
    }

    /**
     * @param  list<Child>  $children
     * @return list<list<string>>
     */
    private function wideBlanks(array $children): array
    {
        $rows = [$this->header(), ...array_map($this->row(...), $children)];
        $widths = [];
        foreach ($rows as $row) {
            foreach ($row as $c => $cell) {
                $widths[$c] = max($widths[$c] ?? 0, mb_strlen($cell));
            }
        }

        return array_map(
            fn(array $row): array => [
                implode(
                    '   ',
                    array_map(
                        fn(string $cell, int $c): string => $cell . str_repeat(' ', $widths[$c] - mb_strlen($cell)),
                        $row,
                        array_keys($row),
                    ),
                ),
            ],
            $rows,
        );
    }
}
