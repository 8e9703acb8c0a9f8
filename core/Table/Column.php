<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** One column of a list: its heading, samples, what it is taken for and why. */
final readonly class Column
{
    /** Why a column that counts the rows is left out. */
    public const COUNTS = 'left out: it counts the rows';

    /**
     * @param  list<string>  $samples up to three different cells
     * @param  list<Field>  $unsure what else it may well be, where that is to be asked
     */
    public function __construct(
        public int $index,
        public string $heading,
        public array $samples,
        public ?Field $field,
        public string $why,
        public array $unsure = [],
    ) {}

    /** Whether it is called a room: of a class of children it is the homeroom, of somebody of the staff no section. */
    public function isRoom(): bool
    {
        return preg_match(
            '/^(room|rm|office|classroom|class room|aula|salle|salon)( (number|no|nr))?$/',
            NameKey::of($this->heading),
        ) === 1;
    }

    /** The heading, or the spreadsheet's own name of the column: A, B .. Z, AA. */
    public function name(): string
    {
        return $this->heading !== ''
            ? $this->heading
            : ($this->index >= 26 ? chr(64 + intdiv($this->index, 26)) : '') . chr(65 + ($this->index % 26));
    }
}
