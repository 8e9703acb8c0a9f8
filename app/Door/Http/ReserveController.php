<?php

declare(strict_types=1);

namespace App\Door\Http;

use App\Door\Http\Wishes\ReserveOwnerWish;
use App\Door\Http\Wishes\ReservesWish;
use App\Models\Person;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Sections\SectionDesk;
use App\Sections\SectionReader;
use App\Sections\Views\SectionDetail;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Vantrel\Core\Door\Reserves;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Records;

/** Reserve accounts of a section: made ahead, claimed by a name. */
final class ReserveController
{
    public function __construct(
        private readonly SectionDesk $desk,
        private readonly SectionReader $reader,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(SectionDetail::class, 'Make reserve accounts')]
    #[Takes(ReservesWish::class)]
    public function store(Section $section, Request $request): SectionDetail
    {
        $wish = Wishes::of(ReservesWish::class, $request);
        $reserves = $this->desk->snapshots->list(
            Records\Person::class,
            fn(Builder $q): Builder => $q
                ->where('state', 'reserve')
                ->whereIn(
                    'id',
                    fn($s) => $s
                        ->select('person_id')
                        ->from('enrollments')
                        ->where('section_id', $section->id)
                        ->whereNull('ends_on'),
                ),
        );
        $seed = $this->kit->seed();
        $plan = Reserves::make(
            $this->desk->row($section),
            $wish->count,
            $reserves,
            $this->kit->userNames(),
            $this->kit->ids($seed),
            SchoolDay::today($section->school_id),
        );
        $this->desk->apply($plan, $section, $request, Action::Reserve);

        return $this->reader->detail($section, Person::signedIn($request), null);
    }

    #[Answers(SectionDetail::class, 'Give a reserve account its owner')]
    #[Takes(ReserveOwnerWish::class)]
    public function claim(Section $section, Person $person, Request $request): SectionDetail
    {
        $wish = Wishes::of(ReserveOwnerWish::class, $request);
        $name = NameReader::mend(
            new PersonName(NameReader::tidy($wish->givenName), NameReader::tidy($wish->familyName)),
        );
        $plan = Reserves::claim(
            $this->desk->memberOf($section, $person),
            $name,
            $wish->birthDate,
            $wish->number === null ? null : trim($wish->number),
        );
        $this->desk->apply($plan, $section, $request, Action::Reserve);

        return $this->reader->detail($section, Person::signedIn($request), null);
    }
}
