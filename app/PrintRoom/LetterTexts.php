<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Ledger\Snapshots;
use App\Models\School;
use RuntimeException;
use Vantrel\Core\PrintRoom\LetterKind;
use Vantrel\Core\PrintRoom\Wording;
use Vantrel\Core\PrintRoom\Wordings;
use Vantrel\Core\Records\LetterWording;
use Vantrel\Core\Values\Language;

/** The words of letters: ours from resources/letters, and what a school has written over them. */
final class LetterTexts
{
    /** @var array<string, array<string, array<string, string>>> by language and kind */
    private array $standard = [];

    public function __construct(private readonly Snapshots $snapshots) {}

    public function of(School $school, LetterKind $kind): Wordings
    {
        $own = [];
        foreach ($this->rows($school, $kind) as $row) {
            $own[(string) $row->field('language')] = $row->texts();
        }
        $languages = [];
        foreach (Language::WRITTEN as $language) {
            $languages[$language] = Wording::of($kind, $this->standard($language, $kind), $own[$language] ?? []);
        }

        return new Wordings($kind, $languages);
    }

    /** What a school has written for a kind in a language, as it is kept. */
    public function row(School $school, LetterKind $kind, string $language): ?LetterWording
    {
        foreach ($this->rows($school, $kind) as $row) {
            if ($row->field('language') === $language) {
                return $row;
            }
        }

        return null;
    }

    /** @return array<string, string> by text */
    public function standard(string $language, LetterKind $kind): array
    {
        if (!isset($this->standard[$language])) {
            /** @var array<string, array<string, string>>|null $texts */
            $texts = json_decode((string) file_get_contents(resource_path("letters/$language.json")), true);
            $this->standard[$language] = $texts ?? throw new RuntimeException("letters/$language.json is no JSON.");
        }

        return $this->standard[$language][$kind->value];
    }

    /** @return list<LetterWording> */
    private function rows(School $school, LetterKind $kind): array
    {
        return $this->snapshots->list(
            LetterWording::class,
            fn($q) => $q->where('school_id', $school->id)->where('kind', $kind->value),
        );
    }
}
