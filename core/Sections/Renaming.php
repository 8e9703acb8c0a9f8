<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;

/**
 * Renames what bears a name throughout a school year: a homeroom and every class called after it. Codes, rosters and
 * staff stay. Whole words are looked for, in small or capital letters: “3 Heron” is in “3 heron Art”, not in “13
 * Heron”.
 */
final class Renaming
{
    /** As many letters as a section's name may have. */
    private const MOST = SectionNames::MAX;

    public static function plan(Snapshot $snapshot, RenameWish $wish): Plan
    {
        $open = array_filter(
            $snapshot->where(Section::class, 'school_year_id', $wish->yearId),
            fn(Section $s): bool => $s->state() === SectionState::Open,
        );
        usort($open, fn(Section $a, Section $b): int => strnatcasecmp($a->name(), $b->name()) ?: $a->id <=> $b->id);
        $becomes = [];
        foreach ($open as $section) {
            $name = self::renamed($section->name(), $wish);
            if ($name !== $section->name()) {
                $becomes[$section->id] = $name;
            }
        }
        $plan = new PlanBuilder();
        $renamed = 0;
        $seen = [];
        foreach ($open as $section) {
            $name = $becomes[$section->id] ?? null;
            if ($name === null) {
                continue;
            }
            $fault = self::fault($section, $name, $open, $seen);
            $plan->row(
                new PlanRow(
                    count($seen) + 1,
                    $fault === '' ? Verdict::Update : Verdict::Cannot,
                    ['Section' => $fault === '' ? new Cell($section->name(), $name) : Cell::same($section->name())],
                    '',
                    $fault === '' ? [] : [new Problem('Section', $fault)],
                ),
            );
            $seen[$section->id] = $fault === '' ? NameKey::of($name) : '';
            if ($fault === '') {
                $plan->update($section, ['name' => $name], 'renamed');
                $renamed++;
            }
        }

        return $plan->build(
            "“{$wish->words}” becomes “{$wish->instead}”",
            $becomes === []
                ? "No open section of this year has “{$wish->words}” in its name."
                : 'Renames ' .
                    Words::count($renamed, 'section') .
                    ($renamed < count($becomes) ? ', leaves ' . (count($becomes) - $renamed) . ' as they are' : '') .
                    '. Codes, rosters and staff stay.',
            [new Tally('sections', $renamed, 'sections renamed')],
        );
    }

    private static function renamed(string $name, RenameWish $wish): string
    {
        $words = preg_quote($wish->words, '/');
        $instead = addcslashes($wish->instead, '\\$');

        return NameReader::tidy(
            (string) preg_replace("/(?<![\\p{L}\\p{N}])$words(?![\\p{L}\\p{N}])/iu", $instead, $name),
        );
    }

    /**
     * Why a section cannot be called so, '' where it can. A name that another section has at this moment is not free,
     * even where that one is renamed too: which of them would be written first is not for us to say.
     *
     * @param  list<Section>  $open
     * @param  array<string, string>  $seen id to the key of the name that those before it become
     */
    private static function fault(Section $section, string $name, array $open, array $seen): string
    {
        $key = NameKey::of($name);
        if ($key === '') {
            return 'Nothing would be left of its name.';
        }
        if (mb_strlen($name) > self::MOST) {
            return 'Its name would be longer than ' . self::MOST . ' letters.';
        }
        foreach ($open as $other) {
            if ($other->id !== $section->id && NameKey::of($other->name()) === $key) {
                return "There is a section called {$other->name()} this year.";
            }
        }

        return in_array($key, $seen, true) ? "Another one would be called $name too." : '';
    }
}
