<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\School;

/** Files that are one list, and all that was said about them: with what is known, they make the same plan each time. */
final readonly class FilesOfList
{
    /**
     * @param  list<array{string, string}>  $files path and title of each
     * @param  string  $seed what the ids of the rows it writes are drawn from, with the round
     * @param  int  $round times the list was undone and planned again, from 1
     * @param  array<string, string>  $answers
     * @param  string|null  $everyone scope of a list of everyone, null for additions
     * @param  string  $confirmed words of who goes on past the trip-wire
     * @param  string|null  $madeBy id of whoever brings the list in: it may write people of all schools they coordinate
     * @param  string|null  $today the day it is planned for, null for today at the school
     */
    public function __construct(
        public array $files,
        public School $school,
        public string $title,
        public string $seed,
        public int $round = 1,
        public array $answers = [],
        public ?string $everyone = null,
        public string $confirmed = '',
        public ?string $madeBy = null,
        public ?string $today = null,
    ) {}
}
