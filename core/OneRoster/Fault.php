<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

use RuntimeException;

/** A request the service refuses. */
final class Fault extends RuntimeException
{
    public function __construct(public readonly CodeMinor $minor, string $said)
    {
        parent::__construct($said);
    }

    /** @return array<string, mixed> the status information that stands in for the answer */
    public function payload(): array
    {
        return [
            'imsx_codeMajor' => 'failure',
            'imsx_severity' => 'error',
            'imsx_description' => $this->getMessage(),
            'imsx_CodeMinor' => [
                'imsx_codeMinorField' => [
                    [
                        'imsx_codeMinorFieldName' => 'TargetEndSystem',
                        'imsx_codeMinorFieldValue' => $this->minor->value,
                    ],
                ],
            ],
        ];
    }
}
