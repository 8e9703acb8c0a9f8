<?php

declare(strict_types=1);

namespace App\Retention;

use Illuminate\Support\Facades\DB;
use Vantrel\Core\Roll\Erasure;

/**
 * All that somebody is or was called, and what else means them alone: names in each order, the one they go by, numbers,
 * user names, addresses, telephones. Read from their accounts and from the images that the ledger keeps of these.
 */
final readonly class Forms
{
    /** Shorter ones mean too many things. */
    private const LEAST = 4;

    /**
     * @param  list<string>  $ids of the account and of those merged into it
     * @param  list<string>  $all the longest first
     * @param  list<string>  $marks those of them that mean nobody else: numbers, user names, addresses, telephones
     * @param  list<string>  $addresses
     * @param  list<string>  $schools where they are or were
     */
    private function __construct(
        public array $ids,
        public array $all,
        public array $marks,
        public array $addresses,
        public array $schools,
    ) {}

    public static function of(string $personId): self
    {
        $ids = array_map(strval(...), [
            $personId,
            ...array_values(DB::table('people')->where('merged_into', $personId)->pluck('id')->all()),
        ]);
        $now = array_map(fn(object $p): array => (array) $p, DB::table('people')->whereIn('id', $ids)->get()->all());
        $known = $now;
        foreach (
            DB::table('ledger_changes')
                ->where('entity', 'people')
                ->whereIn('row_id', $ids)
                ->get(['before', 'after'])
            as $image
        ) {
            foreach ([$image->before, $image->after] as $side) {
                // An image has the columns that changed: the others are those of the account.
                $known[] = [...$now[0] ?? [], ...array_filter((array) json_decode($side, true), is_string(...))];
            }
        }
        $names = $marks = $addresses = $schools = [];
        foreach ($known as $of) {
            $text = fn(string $column): string => trim((string) ($of[$column] ?? ''));
            foreach (['given_name', 'preferred_name', 'called_name'] as $given) {
                array_push($names, ...self::orders($text($given), $text('family_name')));
            }
            array_push($marks, $text('number'), $text('phone'), $text('email'));
            $addresses[] = $text('email');
            $schools[] = $text('school_id');
        }
        $signIns = DB::table('sign_ins')->whereIn('person_id', $ids)->pluck('user_name');
        array_push($marks, ...array_map(strval(...), $signIns->all()));
        array_push($schools, ...self::schools($ids));
        $all = self::kept([...$names, ...$marks]);
        usort($all, fn(string $a, string $b): int => strlen($b) <=> strlen($a));

        return new self(
            $ids,
            $all,
            self::kept($marks),
            self::kept($addresses),
            array_values(array_unique(array_filter($schools))),
        );
    }

    /** Whether a text names them. */
    public function areIn(string $text): bool
    {
        return $this->without($text) !== $text;
    }

    /** A text without them, as words by themselves, in large or small letters. */
    public function without(string $text): string
    {
        foreach ([...$this->all, ...self::escaped($this->all)] as $form) {
            $text =
                preg_replace(
                    '/(?<![\pL\pN])' . preg_quote($form, '/') . '(?![\pL\pN])/iu',
                    mb_strtolower(Erasure::NAME),
                    $text,
                ) ?? $text;
        }

        return $text;
    }

    /** @return list<string> those to look for: as written, and as JSON writes them */
    public function needles(): array
    {
        return [...$this->all, ...self::escaped($this->all)];
    }

    /**
     * @param  list<string>  $forms
     * @return list<string> as JSON writes those that hold more than plain letters
     */
    private static function escaped(array $forms): array
    {
        $escaped = array_map(
            fn(string $form): string => substr(
                json_encode($form, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE),
                1,
                -1,
            ),
            $forms,
        );

        return array_values(array_diff($escaped, $forms));
    }

    /**
     * @param  array<string>  $words
     * @return list<string>
     */
    private static function kept(array $words): array
    {
        $kept = [];
        foreach ($words as $word) {
            if (
                mb_strlen($word) >= self::LEAST &&
                !str_starts_with($word, '(erased') &&
                !str_starts_with($word, Erasure::NAME)
            ) {
                $kept[$word] = true;
            }
        }

        return array_map(strval(...), array_keys($kept));
    }

    /** @return list<string> */
    private static function orders(string $given, string $family): array
    {
        return $given === '' || $family === '' ? [] : ["$given $family", "$family, $given", "$family $given"];
    }

    /**
     * @param  list<string>  $ids
     * @return list<string> schools of what they were in, and of requests about them
     */
    private static function schools(array $ids): array
    {
        $sections = DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->whereIn('e.person_id', $ids)
            ->distinct()
            ->pluck('s.school_id');
        $asked = DB::table('transfer_requests')
            ->whereIn('person_id', $ids)
            ->get(['from_school_id', 'to_school_id']);
        $entries = DB::table('ledger_changes as c')
            ->join('ledger_schools as s', 's.entry_seq', '=', 'c.entry_seq')
            ->whereIn('c.row_id', $ids)
            ->distinct()
            ->pluck('s.school_id');

        return array_values(
            array_map(strval(...), [
                ...$sections,
                ...$asked->pluck('from_school_id'),
                ...$asked->pluck('to_school_id'),
                ...$entries,
            ]),
        );
    }
}
