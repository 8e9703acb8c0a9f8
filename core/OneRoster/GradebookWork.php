<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/** A piece of work in a gradebook: a row of lineItems.csv. */
final readonly class GradebookWork
{
    /**
     * @param  string  $id sourcedId
     * @param  string  $day YYYY-MM-DD it is due, at the school
     * @param  string  $classId sourcedId
     * @param  bool  $gone whether the gradebook says that it is not there any more
     */
    public function __construct(
        public string $id,
        public string $title,
        public string $body,
        public string $day,
        public string $classId,
        public bool $gone,
    ) {}
}
