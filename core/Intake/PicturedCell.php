<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

/** A cell as it came, what became of it, and why or as what it was read. */
final readonly class PicturedCell
{
    public function __construct(public string $text, public Fate $fate, public string $note = '') {}
}
