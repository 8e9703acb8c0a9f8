<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

use Vantrel\Core\Records\WorkState;

/** What a gradebook says of one student and one piece of work: a row of results.csv. */
final readonly class GradebookResult
{
    /**
     * @param  string  $workId sourcedId of the work
     * @param  string  $studentId sourcedId
     * @param  bool  $onceDue whether missing only counts from the day after it is due: nothing has come yet
     */
    public function __construct(
        public string $workId,
        public string $studentId,
        public WorkState $state,
        public bool $onceDue,
    ) {}
}
