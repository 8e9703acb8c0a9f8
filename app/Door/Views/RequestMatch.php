<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;
use Vantrel\Core\Matching\Evidence;

/** A student of the Roll whom a newcomer may be. */
final readonly class RequestMatch extends Resource
{
    /**
     * @param  string  $sections the student is in; for coordinators
     * @param  bool  $here whether they are in this section already
     * @param  list<Evidence>  $evidence without values for teachers
     */
    public function __construct(
        public string $id,
        public string $name,
        public float $probability,
        public string $sections,
        public bool $here,
        public array $evidence,
    ) {}
}
