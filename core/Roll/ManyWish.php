<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\Language;

/** What is done with many students at once, and to what they are put. */
final readonly class ManyWish
{
    /**
     * @param  GradeLevel|null  $grade they come into; null for none
     * @param  Language|null  $language their families are written to in; null where that is not known
     * @param  NameShown|null  $shown null for as the school has it
     */
    public function __construct(
        public ManyKind $kind,
        public ?GradeLevel $grade = null,
        public ?Language $language = null,
        public ?NameShown $shown = null,
    ) {}
}
