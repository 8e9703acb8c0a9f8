<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Records\Person;

/**
 * Which name a known person goes on under when a list writes it otherwise. A short form, an initial, half of a double
 * name or lost accents never replace what is on record; a sheet that came out of here is taken at its word.
 */
final class NameChoice
{
    /** @param  list<Evidence>  $evidence of the match */
    public static function of(StudentLine $line, Person $person, array $evidence): PersonName
    {
        if ($line->account !== '') {
            return $line->name;
        }
        $levels = [];
        foreach ($evidence as $e) {
            $levels[$e->field] = $e->level;
        }
        if (isset($levels['names swapped'])) {
            return new PersonName('', '');
        }

        return new PersonName(
            self::better(
                $line->name->given,
                $person->givenName(),
                $levels['given name'] ?? ($levels['given initial'] ?? ''),
            ),
            self::better(
                $line->name->family,
                $person->familyName(),
                $levels['family name'] ?? ($levels['family initial'] ?? ''),
            ),
        );
    }

    /** The new spelling, or '' to leave what is there. */
    private static function better(string $new, string $old, string $level): string
    {
        $plain = fn(string $s): bool => preg_match('/[^\x00-\x7F]/', $s) !== 1;

        return match ($level) {
            'alike' => $plain($old) && !$plain($new) ? $new : '',
            'other form', 'initial only' => '',
            'part of it' => count(explode(' ', NameKey::of($new))) > count(explode(' ', NameKey::of($old))) ? $new : '',
            default => $new,
        };
    }
}
