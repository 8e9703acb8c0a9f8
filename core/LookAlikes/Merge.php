<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

/** What merging accounts comes to: who stays and why, who goes, and which value of each field stays. */
final readonly class Merge
{
    /**
     * @param  list<string>  $goIds
     * @param  string  $why that account stays, in a few words
     * @param  list<MergedField>  $fields
     * @param  bool  $endsUnproven whether a password ends that somebody chose at a door without showing who they are
     */
    public function __construct(
        public string $staysId,
        public array $goIds,
        public string $why,
        public array $fields,
        public bool $endsUnproven,
    ) {}
}
