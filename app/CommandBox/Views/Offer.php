<?php

declare(strict_types=1);

namespace App\CommandBox\Views;

use App\Platform\Resource;
use Vantrel\Core\CommandBox\Verb;

/** One thing that Enter would do, said before it does. At most one of `path`, `entry` and `placing` is given. */
final readonly class Offer extends Resource
{
    /**
     * @param  string  $what it will do, in a sentence
     * @param  string|null  $path where it leads, behind the address of the school
     * @param  string|null  $wall id of the section whose code goes on the wall
     * @param  string|null  $entry id of the entry that an undo is looked at of
     * @param  string  $why it cannot be done, and what to type instead; '' where it can
     */
    public function __construct(
        public string $id,
        public Verb $verb,
        public string $label,
        public string $what = '',
        public ?string $path = null,
        public ?string $wall = null,
        public ?string $entry = null,
        public ?Placing $placing = null,
        public string $why = '',
    ) {}
}
