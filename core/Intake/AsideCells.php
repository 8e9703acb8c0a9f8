<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Roll\EditPerson;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Values\Language;

/** Reads what a row says of a student beside who they are: the name they go by, the language of the family. */
final readonly class AsideCells
{
    public function __construct(private RowReader $row) {}

    /** @return string the given name they go by, '' where the row says none, or the one on record */
    public function preferred(PersonName $name): string
    {
        $cell = $this->row->cell(Field::PreferredName);
        if ($cell === '' || preg_match('/\p{L}/u', $cell) !== 1) {
            return '';
        }
        $called = $cell;
        // "Skip MacAllister": the family name stands in its own column.
        if ($name->family !== '' && str_ends_with(mb_strtolower($called), ' ' . mb_strtolower($name->family))) {
            $called = trim(mb_substr($called, 0, -mb_strlen($name->family)));
        }
        $mended = NameReader::mend(new PersonName($called, $name->family))->given;
        if ($mended !== $cell) {
            $mended = $this->row->mend(
                Field::PreferredName,
                $called === $cell ? 'capitals' : 'family name left out',
                $cell,
                $mended,
            );
        }
        if (mb_strlen($mended) > EditPerson::LONGEST_NAME) {
            $this->row->problem(
                Field::PreferredName,
                'This is longer than ' . EditPerson::LONGEST_NAME . ' letters, and is left out.',
                false,
            );

            return '';
        }

        return NameKey::of($mended) === NameKey::of($name->given) ? '' : $mended;
    }

    /** @return string as {@see Language} codes it */
    public function language(): string
    {
        $cell = $this->row->cell(Field::Language);
        if ($cell === '') {
            return '';
        }
        $language = Language::read($cell);
        if ($language === null) {
            $this->row->problem(
                Field::Language,
                "“{$cell}” is not a language known here, and is left out. Write its English name, or its code.",
                false,
            );
        }

        return $language->code ?? '';
    }
}
