<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;
use Vantrel\Core\PrintRoom\LetterKind;
use Vantrel\Core\PrintRoom\Wordings;

/** The words of a letter in one language, to be edited. */
final readonly class WordingView extends Resource
{
    /**
     * @param  list<WordingText>  $texts in the order they stand on the page
     * @param  list<string>  $fields that may stand in braces
     * @param  list<string>  $lacking tags of languages that lack something
     */
    public function __construct(
        public LetterKind $kind,
        public string $language,
        public array $texts,
        public array $fields,
        public array $lacking,
    ) {}

    public static function of(Wordings $wordings, string $language): self
    {
        $lacking = $wordings->lacking();
        $wording = $wordings->languages[$language];
        $texts = [];
        foreach ($wordings->kind->texts() as $name => $label) {
            $texts[] = new WordingText(
                $name,
                $label,
                $wording->standard[$name],
                $wording->own[$name] ?? null,
                in_array($name, $lacking[$language] ?? [], true),
            );
        }

        return new self($wordings->kind, $language, $texts, $wordings->kind->fields(), array_keys($lacking));
    }
}
