<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;
use App\PrintRoom\Whom;
use Vantrel\Core\PrintRoom\Printed;

/** For whom at a school something is printed. */
final readonly class WhomWish
{
    /**
     * @param  list<string>  $sectionIds none where students are named instead
     * @param  list<string>  $personIds of these only; of all the sections' where none are named
     * @param  Printed  $printed of these, those who are like that
     * @param  string|null  $since the day, of those who came since
     */
    public function __construct(
        #[Must('required_without:person_ids|max:300', each: 'ulid')] public array $sectionIds = [],
        #[Must('max:2000', each: 'ulid')] public array $personIds = [],
        public Printed $printed = Printed::Everyone,
        #[Must('required_if:printed,since|date_format:Y-m-d')] public ?string $since = null,
    ) {}

    public function whom(): Whom
    {
        return new Whom($this->sectionIds, $this->personIds, $this->printed, $this->since);
    }
}
