<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

/** What merging two accounts comes to: who stays, who goes, and which value of each field stays. */
final readonly class Merge
{
    /** @param  list<MergedField>  $fields */
    public function __construct(public string $staysId, public string $goesId, public array $fields) {}
}
