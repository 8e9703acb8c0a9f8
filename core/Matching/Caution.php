<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/**
 * What the way two records agree says beyond its weight: another child, a doubt that a person has to settle, a kinship.
 */
final class Caution
{
    /** A given name that is another, where all else is the same and a number is missing. */
    public const OTHER_NAME = 'a twin, or the same child by another name';

    /** Levels of a birth date that a slip of the hand explains. */
    private const ONE_DATE = ['alike', 'turned', 'one digit'];

    /**
     * Another given name, and nothing else that tells the two apart: two who share a birth date and a family name are
     * twins, or one child who has a name that no table knows.
     *
     * @param  array<string, string>  $levels
     */
    public static function mayBeOtherName(array $levels): bool
    {
        return ($levels['given name'] ?? null) === 'differs' &&
            ($levels['birth date'] ?? null) === 'alike' &&
            ($levels['family name'] ?? null) === 'alike' &&
            !isset($levels['student number']) &&
            ($levels['e-mail'] ?? null) !== 'differs';
    }

    /**
     * Another given name is another child, a twin above all, however alike the rest: unless the number or the own
     * address is the same, and then a person has to look.
     *
     * @param  array<string, string>  $levels
     */
    public static function isAnother(array $levels): bool
    {
        return ($levels['given name'] ?? ($levels['given initial'] ?? null)) === 'differs' &&
            ($levels['student number'] ?? null) !== 'alike' &&
            ($levels['e-mail'] ?? null) !== 'alike';
    }

    /**
     * Why a match must not be settled without a person, '' if nothing speaks against it.
     *
     * @param  array<string, string>  $levels
     */
    public static function of(array $levels): string
    {
        $given = $levels['given name'] ?? ($levels['given initial'] ?? null);
        $number = $levels['student number'] ?? null;
        $settled = $number === 'alike' || ($levels['e-mail'] ?? null) === 'alike';
        $birth = $levels['birth date'] ?? null;

        return match (true) {
            $given === 'differs' => 'the given name is another',
            !$settled && $given === 'akin' => $birth === 'alike' ? self::OTHER_NAME : 'the given name is another',
            !$settled && ($levels['family name'] ?? null) === 'differs' => 'the family name is another',
            in_array($number, ['differs', 'one digit'], true) => 'same name, another number',
            $settled => '',
            !in_array($birth ?? 'alike', self::ONE_DATE, true) => 'same name, another birth date',
            ($levels['guardian contact'] ?? null) !== 'differs' => '',
            // One who has moved, or one of the same name, with a slip or born a day later.
            $birth !== null && $birth !== 'alike' => 'same name, a birth date that is near, and another guardian',
            $birth === null && $number === null => 'the name alone, and another guardian',
            // "Alex" and "Alec" are both short for one name, and two children.
            $given === 'other form' => 'another form of the name, and another guardian',
            default => '',
        };
    }

    /**
     * What somebody alike is to a row who is not its person, '' where nothing tells.
     *
     * @param  array<string, string>  $levels
     * @param  bool  $sibling whether a brother or sister is likelier than the same person
     */
    public static function relation(array $levels, bool $sibling): string
    {
        $given = $levels['given name'] ?? null;
        $family = $levels['family name'] ?? null;
        if (
            $given === 'differs' &&
            $family === 'alike' &&
            ($sibling || in_array('alike', [$levels['guardian contact'] ?? null, $levels['birth date'] ?? null], true))
        ) {
            return ($levels['birth date'] ?? null) === 'alike' ? 'a twin' : 'a brother or sister';
        }
        if ($given === 'alike' && $family === 'alike') {
            $by = array_values(
                array_filter(
                    ['birth date', 'student number', 'grade'],
                    fn(string $f): bool => in_array(
                        $levels[$f] ?? null,
                        ['differs', 'same year', 'another year'],
                        true,
                    ),
                ),
            );

            return $by === []
                ? ''
                : 'a namesake, ' . implode(' and ', array_slice($by, 0, 2)) . (count($by) > 1 ? ' differ' : ' differs');
        }

        return '';
    }
}
