<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

use Closure;

/**
 * Gathers accepted pairs into clusters, each of which is to be one person. No two members of a cluster may contradict
 * each other: where they would, the weakest link between them is cut, and cut again until no contradiction is left.
 */
final class Clusters
{
    /**
     * @param  list<array{string, string, float}>  $links two ids and the strength of the link
     * @param  Closure(string, string): bool  $contradict whether two members cannot be one person
     * @return list<list<string>> clusters of two or more, ids in order, the clusters by their first id
     */
    public static function of(array $links, Closure $contradict): array
    {
        $clusters = [];
        foreach (self::components($links) as $component) {
            array_push($clusters, ...self::consistent($component, $links, $contradict));
        }
        usort($clusters, fn(array $a, array $b): int => $a[0] <=> $b[0]);

        return $clusters;
    }

    /**
     * @param  list<string>  $members
     * @param  list<array{string, string, float}>  $links
     * @param  Closure(string, string): bool  $contradict
     * @return list<list<string>>
     */
    private static function consistent(array $members, array $links, Closure $contradict): array
    {
        foreach ($members as $i => $a) {
            foreach (array_slice($members, $i + 1) as $b) {
                if (!$contradict($a, $b)) {
                    continue;
                }
                $inside = array_values(
                    array_filter(
                        $links,
                        fn(array $l): bool => in_array($l[0], $members, true) && in_array($l[1], $members, true),
                    ),
                );
                $path = self::path($a, $b, $inside);
                usort($path, fn(array $x, array $y): int => [$x[2], $x[0], $x[1]] <=> [$y[2], $y[0], $y[1]]);
                $cut = $path[0];
                $rest = array_values(array_filter($inside, fn(array $l): bool => $l !== $cut));
                $parts = [];
                foreach (self::components($rest) as $component) {
                    array_push($parts, ...self::consistent($component, $rest, $contradict));
                }

                return $parts;
            }
        }

        return [$members];
    }

    /**
     * The links of the strongest path between two members: the one whose weakest link is strongest.
     *
     * @param  list<array{string, string, float}>  $links
     * @return non-empty-list<array{string, string, float}>
     */
    private static function path(string $a, string $b, array $links): array
    {
        usort($links, fn(array $x, array $y): int => $y[2] <=> $x[2]);
        $kept = [];
        foreach ($links as $link) {
            $kept[] = $link;
            $found = self::walk($a, $b, $kept, []);
            if ($found !== []) {
                return $found;
            }
        }

        throw new \LogicException("$a and $b are not linked.");
    }

    /**
     * @param  list<array{string, string, float}>  $links
     * @param  array<string, true>  $seen
     * @return list<array{string, string, float}>
     */
    private static function walk(string $from, string $to, array $links, array $seen): array
    {
        $seen[$from] = true;
        foreach ($links as $link) {
            $next = match ($from) {
                $link[0] => $link[1],
                $link[1] => $link[0],
                default => null,
            };
            if ($next === null || isset($seen[$next])) {
                continue;
            }
            if ($next === $to) {
                return [$link];
            }
            $rest = self::walk($next, $to, $links, $seen);
            if ($rest !== []) {
                return [$link, ...$rest];
            }
        }

        return [];
    }

    /**
     * @param  list<array{string, string, float}>  $links
     * @return list<list<string>> by union and find
     */
    private static function components(array $links): array
    {
        $parent = [];
        $find = function (string $x) use (&$parent, &$find): string {
            $parent[$x] ??= $x;

            return $parent[$x] === $x ? $x : ($parent[$x] = $find($parent[$x]));
        };
        foreach ($links as [$a, $b]) {
            $parent[$find($a)] = $find($b);
        }
        $groups = [];
        foreach (array_keys($parent) as $id) {
            $groups[$find((string) $id)][] = (string) $id;
        }
        foreach ($groups as &$group) {
            sort($group);
        }

        return array_values($groups);
    }
}
