<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\LetterWording;
use Vantrel\Core\Values\Language;

/** One kind of letter in all the languages the product writes. */
final readonly class Wordings
{
    /** @param  array<string, Wording>  $languages by tag */
    public function __construct(public LetterKind $kind, public array $languages) {}

    /**
     * What a school has written itself in one language, and another lacks: left alone, half of the families would read
     * less than the other half.
     *
     * @return array<string, list<string>> texts, by language that lacks any
     */
    public function lacking(): array
    {
        $written = [];
        foreach ($this->languages as $wording) {
            $written += $wording->own;
        }
        $lacking = [];
        foreach ($this->languages as $language => $wording) {
            $texts = array_keys(array_diff_key($written, $wording->own));
            if ($texts !== []) {
                $lacking[$language] = $texts;
            }
        }

        return $lacking;
    }

    /**
     * @param  list<string>  $languages that are to be printed
     *
     * @throws Refusal where the school's own words stand in one language only
     */
    public function mustBeWhole(array $languages): void
    {
        $lacking = array_intersect_key($this->lacking(), array_flip($languages));
        if ($lacking === []) {
            return;
        }
        $names = implode(
            ', ',
            array_map(fn(string $l): string => Language::read($l)?->name() ?? '', array_keys($lacking)),
        );
        throw new Refusal(
            "The school’s own wording is missing in $names. Add it there, or print the standard wording instead.",
            'without',
        );
    }

    /**
     * Keeps what a school has written in a language.
     *
     * @param  array<string, string>  $texts
     * @param  LetterWording|null  $row as it is kept now
     *
     * @throws Refusal
     */
    public function write(string $schoolId, string $language, array $texts, ?LetterWording $row, Ids $ids): Plan
    {
        $wording = $this->languages[$language] ?? throw new Refusal('The product does not write that language.');
        $own = $wording->with($texts)->own;
        ksort($own);
        $kept = json_encode($own, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_FORCE_OBJECT);
        $plan = new PlanBuilder();
        if ($row !== null) {
            $plan->update($row, ['texts' => $kept], 'wording');
        } elseif ($own !== []) {
            $plan->insert(
                Entity::LetterWording,
                $ids->for('wording', $this->kind->value, $language),
                [
                    'school_id' => $schoolId,
                    'kind' => $this->kind->value,
                    'language' => $language,
                    'texts' => $kept,
                ],
                'wording',
            );
        }
        $name = Language::read($language)?->name() ?? $language;

        return $plan->build(
            "Wording: {$this->kind->label()}, $name",
            "Changes the words of the {$this->kind->label()} in $name.",
        );
    }
}
