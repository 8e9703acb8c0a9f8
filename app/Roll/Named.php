<?php

declare(strict_types=1);

namespace App\Roll;

use App\Models\School;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\StudentNumber;

/**
 * Whom the lines of a pasted list mean: by number, address, user name or the whole name, exactly; nobody is guessed at.
 * A fixed number of queries, however long the list.
 */
final class Named
{
    public const MOST = 2000;

    private const CHUNK = 500;

    /**
     * @return array{ids: list<string>, nobody: list<string>, several: list<string>}
     *
     * @throws Refusal where the list is too long
     */
    public static function of(School $school, string $text): array
    {
        $lines = array_values(
            array_unique(
                array_filter(
                    array_map(fn(string $l): string => trim($l, " \t\r\n;,\""), preg_split('/\R|\t|;/u', $text) ?: []),
                    fn(string $l): bool => $l !== '',
                ),
            ),
        );
        if (count($lines) > self::MOST) {
            throw new Refusal('Paste up to ' . number_format(self::MOST) . ' at a time.', 'lines');
        }
        $keys = $by = [];
        foreach ($lines as $line) {
            $keys[$line] = self::keys($line);
            foreach ($keys[$line] as [$how, $key]) {
                $by[$how][$key] = true;
            }
        }
        $found = [];
        foreach ($by as $how => $of) {
            $found[$how] = self::found($school, $how, array_map(strval(...), array_keys($of)));
        }
        $ids = $nobody = $several = [];
        foreach ($keys as $line => $ways) {
            $meant = [];
            foreach ($ways as [$how, $key]) {
                // The first way that means anybody: a number before a name that looks like one.
                $meant = $meant === [] ? $found[$how][$key] ?? [] : $meant;
            }
            match (count($meant)) {
                0 => ($nobody[] = (string) $line),
                1 => ($ids[] = $meant[0]),
                default => ($several[] = (string) $line),
            };
        }

        return ['ids' => array_values(array_unique($ids)), 'nobody' => $nobody, 'several' => $several];
    }

    /** @return list<array{string, string}> ways to look for a line, with what is looked for */
    private static function keys(string $line): array
    {
        $number = StudentNumber::bare($line);
        $names = array_map(NameKey::of(...), explode(',', $line, 2));
        $ways = [
            ['number', mb_strtolower($number)],
            ['plain_number', ltrim(mb_strtolower($number), '0')],
            ['email', mb_strtolower($line)],
            ['user_name', mb_strtolower($line)],
            ['search_name', NameKey::of($line)],
            // "Quill, Corin"
            ['search_name', trim(($names[1] ?? '') . ' ' . $names[0])],
        ];

        return array_values(array_filter($ways, fn(array $way): bool => $way[1] !== ''));
    }

    /**
     * @param  list<string>  $keys
     * @return array<string, list<string>> key to ids of students it means
     */
    private static function found(School $school, string $how, array $keys): array
    {
        $found = [];
        foreach (array_chunk($keys, self::CHUNK) as $some) {
            $people = DB::table('people as p')
                ->where('p.school_id', $school->id)
                ->where('p.kind', 'student')
                ->whereIn('p.state', ['active', 'left'])
                ->whereNull('p.erased_on')
                ->when(
                    $how === 'user_name',
                    fn(Builder $q) => $q
                        ->join('sign_ins as s', 's.person_id', '=', 'p.id')
                        ->whereIn('s.user_name', $some)
                        ->select('p.id', 's.user_name as k'),
                    fn(Builder $q) => $q->whereIn("p.$how", $some)->select('p.id', "p.$how as k"),
                )
                ->distinct()
                ->orderBy('p.id')
                ->get();
            foreach ($people as $person) {
                $found[mb_strtolower((string) $person->k)][] = (string) $person->id;
            }
        }

        return $found;
    }
}
