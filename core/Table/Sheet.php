<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** One sheet of a file, or one table of a document. */
final readonly class Sheet
{
    /**
     * @param  string  $name as it is called in the file, '' where the file has only one
     * @param  string  $file the file's own name without its ending
     * @param  list<string>  $notes sentences on how its tables were found, and what was left out
     * @param  string  $check a sentence on why it has to be checked closely, '' for a spreadsheet
     */
    public function __construct(
        public string $name,
        public Grid $grid,
        public string $file = '',
        public string $check = '',
        public array $notes = [],
    ) {}

    /** Whether somebody gave the sheet its name: "Sheet1" says nothing of what is in it. */
    public function isNamedByHand(): bool
    {
        return $this->name !== '' &&
            preg_match(
                '/^(sheet|tabelle|hoja|feuil(le)?|folha|table|page|аркуш|лист|工作表|blad|foglio)\s*\d*$/iu',
                trim($this->name),
            ) !== 1;
    }
}
