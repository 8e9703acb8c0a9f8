<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Vantrel\Core\Codes\CodeSymbols;

/** The secrets of one letter about to be printed. */
final readonly class IssuedLetter
{
    /**
     * @param  CodeSymbols  $code of the family
     * @param  CodeSymbols  $slip that is ticked off when it comes back; no secret
     */
    public function __construct(public string $studentId, public CodeSymbols $code, public CodeSymbols $slip) {}
}
