<?php

declare(strict_types=1);

namespace App\PrintRoom;

use Vantrel\Core\PrintRoom\Printed;

/** For whom something is printed. */
final readonly class Whom
{
    /**
     * @param  list<string>  $sectionIds none where students are named, wherever they are
     * @param  list<string>  $personIds of these only, where any are named
     * @param  string|null  $since YYYY-MM-DD, where only those are meant who came since
     */
    public function __construct(
        public array $sectionIds,
        public array $personIds = [],
        public Printed $printed = Printed::Everyone,
        public ?string $since = null,
    ) {}
}
