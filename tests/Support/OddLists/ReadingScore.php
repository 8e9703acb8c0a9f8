<?php

declare(strict_types=1);

namespace Tests\Support\OddLists;

use Throwable;
use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Intake\GuardianLine;
use Vantrel\Core\Intake\SchoolFacts;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Table\ReadingAnswers;
use Vantrel\Core\Table\UnreadableList;

/** Holds what was read of made-up lists against what they say. */
final class ReadingScore
{
    /** @var array<string, array<string, array{lists: int, right: int, said: int, silent: int}>> by what was drawn */
    public array $by = [];

    public int $lists = 0;

    public int $right = 0;

    public int $silent = 0;

    /** @var list<string> the first few silent errors */
    public array $examples = [];

    public function add(int $seed): void
    {
        $list = OddLists::draw($seed);
        [$silent, $said] = self::judge($list);
        $this->lists++;
        $this->right += $silent === [] && $said === [] ? 1 : 0;
        $this->silent += $silent !== [] ? 1 : 0;
        foreach ($list->drawn as $kind => $value) {
            $this->by[$kind][$value] ??= ['lists' => 0, 'right' => 0, 'said' => 0, 'silent' => 0];
            $this->by[$kind][$value]['lists']++;
            $this->by[$kind][$value][$silent !== [] ? 'silent' : ($said !== [] ? 'said' : 'right')]++;
        }
        if ($silent !== [] && count($this->examples) < 40) {
            $this->examples[] =
                "$seed (" .
                implode(', ', $list->drawn) .
                "): $silent[0]" .
                (count($silent) > 1 ? ', and ' . (count($silent) - 1) . ' more' : '');
        }
    }

    /** @return array{list<string>, list<string>} what is wrong in silence, and what is wrong or missing and said */
    public static function judge(OddList $list): array
    {
        try {
            $book = BookReader::read(
                [$list->sheet()],
                new ReadingAnswers([]),
                new SchoolFacts('Lanternfield Elementary', 'lanternfield', 'US', -1, 13),
                new NameBook(),
                '2026-10-01',
            );
        } catch (UnreadableList $e) {
            return [[], [$e->getMessage()]];
        } catch (Throwable $e) {
            return [['crashed: ' . $e::class . ' ' . $e->getMessage()], []];
        }
        $asked = $book->contents->questions !== [];
        $silent = $said = [];
        $left = $book->contents->students;
        foreach ($list->children as $child) {
            $line = null;
            foreach ($left as $i => $l) {
                if (
                    NameKey::of($l->name->full()) === NameKey::of("$child->given $child->family") ||
                    ($child->number !== '' && ltrim($l->studentNumber, '0') === ltrim($child->number, '0')) ||
                    self::words($l->name->full()) === self::words("$child->given $child->family")
                ) {
                    $line = $l;
                    unset($left[$i]);
                    break;
                }
            }
            if ($line === null) {
                $silent[] = "lost $child->given $child->family";
                continue;
            }
            foreach (self::differences($child, $line, $list) as $what => $difference) {
                $excused = $line->problems !== [] || ($asked && in_array($what, ['name', 'born'], true));
                $excused ? ($said[] = $difference) : ($silent[] = $difference);
            }
        }
        foreach ($left as $line) {
            // The second guardian's own row names the same child.
            if ($line->problems === [] && !self::isOfList($line, $list)) {
                $silent[] = "nobody: row $line->number {$line->name->full()}";
            }
        }

        return [$silent, [...$said, ...$asked ? ['asked: ' . $book->contents->questions[0]->text] : []]];
    }

    /** @return array<string, string> */
    private static function differences(Child $child, StudentLine $line, OddList $list): array
    {
        $pairs = [
            'name' => [
                NameKey::of($line->name->given) . '|' . NameKey::of($line->name->family),
                NameKey::of($child->given) . '|' . NameKey::of($child->family),
            ],
            'number' => [$line->studentNumber, $child->number],
            'born' => [$line->birthDate, $child->born],
            'grade' => [$line->grade, $child->grade],
        ];
        $read = $line->homeroom ?: implode(', ', $line->sections);
        // In blocks and side by side it stands above the rows, and is not the child's own in this truth.
        $pairs['section'] = in_array($list->drawn['layout'], ['blocks', 'side by side'], true)
            ? [$read === '' ? 'none' : 'some', 'some']
            : [$read, $child->section];
        $guardians = array_slice($child->guardians, 0, $list->drawn['layout'] === 'guardian below' ? 1 : 2);
        foreach ($guardians as $g => $of) {
            $found = $line->guardians[$g] ?? null;
            $pairs["guardian $g"] = [
                $found === null ? 'nobody' : self::guardian($found),
                NameKey::of($of['name']) .
                ' ' .
                $of['email'] .
                ($list->drawn['layout'] === 'family in a row' ? '' : ' ' . $of['phone']),
            ];
        }
        if (count($line->guardians) > count($guardians)) {
            $pairs['guardians'] = [(string) count($line->guardians), (string) count($guardians)];
        }
        $found = [];
        foreach ($pairs as $what => [$read, $true]) {
            if (trim($read) !== trim($true)) {
                $found[$what] = "$child->given $child->family: $what “{$read}” for “{$true}”";
            }
        }

        return $found;
    }

    private static function guardian(GuardianLine $g): string
    {
        return NameKey::of($g->name->full()) . " $g->email $g->phone";
    }

    private static function isOfList(StudentLine $line, OddList $list): bool
    {
        foreach ($list->children as $child) {
            if (self::words($line->name->full()) === self::words("$child->given $child->family")) {
                return true;
            }
        }

        return false;
    }

    /** @return list<string> */
    private static function words(string $name): array
    {
        $words = explode(' ', NameKey::of($name));
        sort($words);

        return $words;
    }
}
