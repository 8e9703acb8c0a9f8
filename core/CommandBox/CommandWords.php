<?php

declare(strict_types=1);

namespace Vantrel\Core\CommandBox;

use Vantrel\Core\Calendar\DayWords;

/** Reads what somebody types into the one box as something to do. */
final class CommandWords
{
    private const FORMS = [
        '/^undo(?: (?:the )?last(?: thing)?)?$/u' => Verb::Undo,
        '/^(?:print )?(?:login )?cards?(?: (?:for|of))?(?: (?<what>.+))?$/u' => Verb::Cards,
        '/^(?:join )?codes?(?: (?:for|of))?(?: (?<what>.+))?$/u' => Verb::Code,
        '/^archive(?: (?<what>.+))?$/u' => Verb::Archive,
        '/^move (?<what>.+?) from (?<from>.+?) (?:in)?to (?<other>.+)$/u' => Verb::Move,
        '/^move (?<what>.+?) (?:in)?to (?<other>.+)$/u' => Verb::Move,
        '/^move(?: (?<what>.+))?$/u' => Verb::Move,
        '/^(?:place|put|enroll) (?<what>.+?) in(?:to)? (?<other>.+)$/u' => Verb::Place,
        '/^(?:place|put|enroll)(?: (?<what>.+))?$/u' => Verb::Place,
        '/^merge (?<what>.+?) (?:and|with|into) (?<other>.+)$/u' => Verb::Merge,
        '/^merge (?<what>\d+) (?<other>\d+)$/u' => Verb::Merge,
        '/^merge(?: (?<what>.+))?$/u' => Verb::Merge,
        '/^(?:(?<what>.+?) )?as of(?: (?<day>.+))?$/u' => Verb::AsOf,
    ];

    /**
     * @param  string  $today YYYY-MM-DD, at the school
     * @return Said|null null where it is nothing to do: a name, perhaps
     */
    public static function read(string $text, string $today): ?Said
    {
        $text = trim((string) preg_replace('/\s+/u', ' ', $text));
        foreach (self::FORMS as $form => $verb) {
            if (preg_match($form . 'i', $text, $m) === 1) {
                $day = $m['day'] ?? '';

                return new Said(
                    $verb,
                    $m['what'] ?? '',
                    $m['other'] ?? '',
                    $m['from'] ?? '',
                    $day === '' ? '' : DayWords::read($day, $today),
                );
            }
        }

        return null;
    }
}
