<?php

declare(strict_types=1);

namespace App\Door\Http;

use App\Models\Person;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
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
        private readonly CoreKit $kit,
    ) {}

    #[Answers(SectionDetail::class, 'Make reserve accounts')]
    #[Takes(['count' => 'int'])]
    public function store(Section $section, Request $request): SectionDetail
    {
        $request->validate(['count' => 'required|integer']);
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
            $request->integer('count'),
            $reserves,
            $this->kit->userNames(),
            $this->kit->ids($seed),
            SchoolDay::today($section->school_id),
        );
        $this->desk->apply($plan, $section, $request, Action::Reserve);

        return $this->reader->detail($section, $this->desk->actor($request), null);
    }

    #[Answers(SectionDetail::class, 'Give a reserve account its owner')]
    #[Takes(['given_name' => 'string', 'family_name' => 'string', 'birth_date?' => 'string', 'number?' => 'string'])]
    public function claim(Section $section, Person $person, Request $request): SectionDetail
    {
        $request->validate([
            'given_name' => 'required|string|max:60',
            'family_name' => 'required|string|max:60',
            'birth_date' => 'nullable|date_format:Y-m-d',
            'number' => 'nullable|string|max:40',
        ]);
        $name = NameReader::mend(
            new PersonName(
                NameReader::tidy($request->string('given_name')->value()),
                NameReader::tidy($request->string('family_name')->value()),
            ),
        );
        $plan = Reserves::claim(
            $this->desk->memberOf($section, $person),
            $name,
            $request->filled('birth_date') ? $request->string('birth_date')->value() : null,
            $request->filled('number') ? trim($request->string('number')->value()) : null,
        );
        $this->desk->apply($plan, $section, $request, Action::Reserve);

        return $this->reader->detail($section, $this->desk->actor($request), null);
    }
}
