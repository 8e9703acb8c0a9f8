<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;
use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Records\TransferKind;
use Vantrel\Core\Records\TransferState;

/** A request between two schools about one student, as one of them sees it. */
final readonly class TransferLine extends Resource
{
    /**
     * @param  bool  $ours whether this school is asked; else it asks
     * @param  string  $school the other one
     * @param  string  $said what the list says of the student, in words
     * @param  list<string>  $sections the list puts them into
     * @param  string  $student whom of ours it means, with what is on record; '' for the school that asks
     * @param  float|null  $probability that it is them
     * @param  list<Evidence>  $evidence left the list, right the record; none for the school that asks
     */
    public function __construct(
        public string $id,
        public bool $ours,
        public TransferKind $kind,
        public TransferState $state,
        public string $school,
        public string $said,
        public array $sections,
        public string $student,
        public ?string $studentId,
        public ?float $probability,
        public array $evidence,
        public string $askedBy,
        public string $askedAt,
        public ?string $answeredAt,
    ) {}
}
