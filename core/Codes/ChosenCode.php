<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

use InvalidArgumentException;
use Vantrel\Core\Names\NameKey;

/**
 * Whether a join code that a person would like is as safe as a drawn one. They choose the payload; the check symbol
 * follows. A chosen code must not be one that a guesser would try first.
 */
final readonly class ChosenCode
{
    /**
     * Runs a guesser tries first: the alphabet in order, and rows of a keyboard without the symbols that codes do not
     * have.
     */
    private const RUNS = [Alphabet::SYMBOLS, 'QWRTP', 'SDFGHJK', 'ZXCVBNM'];

    /** @param  list<CodeRule>  $rules every rule with whether it holds, in a fixed order */
    private function __construct(public ?CodeSymbols $code, public array $rules) {}

    /**
     * @param  string  $wish as typed: the payload, with or without dashes
     * @param  int  $length symbols a payload needs for the number of codes that are live
     * @param  array<string, true>  $used symbols of all codes there ever were
     * @param  list<string>  $known what everybody knows: the section's name, the teacher's, the school's
     * @param  list<string>  $unfit fragments that must not be read
     */
    public static function judge(string $wish, int $length, array $used, array $known = [], array $unfit = []): self
    {
        $payload = mb_strtoupper((string) preg_replace('/[\s\p{Pd}_.]+/u', '', mb_scrub($wish)));
        $foreign = array_values(
            array_unique(array_filter(mb_str_split($payload), fn(string $s): bool => Alphabet::index($s) === null)),
        );
        $size = mb_strlen($payload);
        $rules = [
            new CodeRule(
                "Exactly $length symbols; one more is added as a check",
                $size === $length,
                $size === $length ? '' : "This has $size.",
            ),
            new CodeRule(
                'Only letters and figures that cannot be misread: ' . Alphabet::SYMBOLS,
                $foreign === [],
                $foreign === [] ? '' : 'Not “' . implode('”, “', $foreign) . '”.',
            ),
        ];
        $code = null;
        try {
            $code = $size === $length ? CodeSymbols::fromPayload($payload) : null;
        } catch (InvalidArgumentException) {
            // A symbol that codes do not have; the rule above says so.
        }
        $kinds = count(array_unique(mb_str_split($payload)));
        $rules[] = new CodeRule(
            'At least four different symbols',
            $kinds >= 4,
            $kinds >= 4 ? '' : 'Repeated symbols are tried first.',
        );
        $run = self::run($payload);
        $rules[] = new CodeRule(
            'No run of four as in the alphabet or on a keyboard',
            $run === '',
            $run === '' ? '' : "“{$run}” is such a run.",
        );
        $name = self::nameIn($payload, $known);
        $rules[] = new CodeRule(
            'Nothing taken from the name of the section, its teacher or the school',
            $name === '',
            $name === '' ? '' : "“{$name}” comes from one of them.",
        );
        $rude = self::fragment($payload, $unfit);
        $rules[] = new CodeRule('Nothing that could be read as rude', !$rude, $rude ? 'Choose another.' : '');
        // Whether another section has it is not told apart from whether one had it: neither may be learnt here.
        $fresh = $code !== null && !isset($used[$code->symbols]);
        $rules[] = new CodeRule(
            'Never used before',
            $code === null || $fresh,
            $code === null || $fresh ? '' : 'Choose another.',
        );

        return new self($code, $rules);
    }

    public function safe(): bool
    {
        return $this->code !== null && array_filter($this->rules, fn(CodeRule $rule): bool => !$rule->holds) === [];
    }

    private static function run(string $payload): string
    {
        foreach (self::RUNS as $line) {
            foreach ([$line, strrev($line)] as $direction) {
                for ($i = 0; $i + 4 <= strlen($direction); $i++) {
                    $run = substr($direction, $i, 4);
                    if (str_contains($payload, $run)) {
                        return $run;
                    }
                }
            }
        }

        return '';
    }

    /** @param  list<string>  $known */
    private static function nameIn(string $payload, array $known): string
    {
        foreach ($known as $text) {
            // What is left of a name when the symbols that codes do not have are taken out: "Heron" leaves HRN.
            $left = implode(
                '',
                array_filter(
                    str_split(strtoupper(str_replace(' ', '', NameKey::of($text)))),
                    fn(string $s): bool => Alphabet::index($s) !== null,
                ),
            );
            for ($i = 0; $i + 4 <= strlen($left); $i++) {
                if (str_contains($payload, substr($left, $i, 4))) {
                    return substr($left, $i, 4);
                }
            }
        }

        return '';
    }

    /** @param  list<string>  $unfit */
    private static function fragment(string $payload, array $unfit): bool
    {
        // Without vowels a rude word is read all the same, and figures are read as the letters they look like.
        $read = strtolower(strtr($payload, ['3' => 'E', '4' => 'A', '7' => 'T', '9' => 'G']));
        $bare = (string) preg_replace('/[aeiouy]/', '', $read);
        foreach ($unfit as $word) {
            $skeleton = (string) preg_replace('/[aeiouy]/', '', $word);
            if (str_contains($read, $word) || (strlen($skeleton) >= 3 && str_contains($bare, $skeleton))) {
                return true;
            }
        }

        return false;
    }
}
