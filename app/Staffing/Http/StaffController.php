<?php

declare(strict_types=1);

namespace App\Staffing\Http;

use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Sections\SectionDesk;
use App\Sections\SectionReader;
use App\Sections\Views\SectionDetail;
use App\Staffing\Http\Wishes\ColleaguesWish;
use App\Staffing\Http\Wishes\LeadWish;
use App\Staffing\Views\Colleague;
use App\Staffing\Views\Colleagues;
use App\Staffing\Views\RolePower;
use App\Staffing\Views\RoleTable;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Records;
use Vantrel\Core\Staffing\Leads;
use Vantrel\Core\Staffing\Power;
use Vantrel\Core\Staffing\StaffRole;
use Vantrel\Core\Values\MailAddress;

/** Who teaches a section, and what each role may do. */
final class StaffController
{
    public function __construct(
        private readonly SectionDesk $desk,
        private readonly SectionReader $reader,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(Colleagues::class, 'Staff of the school by any part of the name, with their addresses at the school')]
    #[Takes(ColleaguesWish::class)]
    public function index(School $school, Request $request): Colleagues
    {
        $wish = Wishes::of(ColleaguesWish::class, $request);
        $words = array_filter(explode(' ', NameKey::of($wish->q)));
        $people = DB::table('people')
            ->where('school_id', $school->id)
            ->where('kind', 'staff')
            ->where('state', 'active')
            ->where(function ($q) use ($words): void {
                foreach ($words as $word) {
                    $q->where(
                        fn($w) => $w
                            ->where('search_name', 'like', "$word%")
                            ->orWhere('search_name', 'like', "% $word%"),
                    );
                }
            })
            ->orderBy('given_name')
            ->orderBy('family_name')
            ->limit(12)
            ->get(['id', 'given_name', 'family_name', 'email']);

        return new Colleagues(
            array_values(
                $people
                    ->map(
                        fn(object $p): Colleague => new Colleague(
                            $p->id,
                            trim("$p->given_name $p->family_name"),
                            in_array(MailAddress::read((string) $p->email)?->domain(), $school->mail_domains, true)
                                ? (string) $p->email
                                : '',
                        ),
                    )
                    ->all(),
            ),
        );
    }

    #[Answers(RoleTable::class, 'What each role may do in a section')]
    public function roles(): RoleTable
    {
        return new RoleTable(
            array_map(fn(StaffRole $r): string => $r->label(), StaffRole::cases()),
            array_map(
                fn(Power $p): RolePower => new RolePower(
                    $p->label(),
                    array_map(fn(StaffRole $r): bool => $r->may($p), StaffRole::cases()),
                ),
                Power::cases(),
            ),
        );
    }

    #[Answers(SectionDetail::class, 'Hand the lead over; who led becomes a co-teacher')]
    #[Takes(LeadWish::class)]
    public function handOver(Section $section, Request $request): SectionDetail
    {
        $wish = Wishes::of(LeadWish::class, $request);
        $plan = Leads::handOver(
            $this->desk->row($section),
            $this->desk->snapshots->find(Records\Person::class, $wish->person),
            $this->desk->staff($section),
            $this->kit->ids($this->kit->seed()),
            SchoolDay::today($section->school_id),
        );
        $this->desk->apply($plan, $section, $request, Action::Lead);

        return $this->reader->detail($section, Person::signedIn($request), null);
    }

    #[Answers(SectionDetail::class, 'Take a co-teacher, assistant or substitute off the section')]
    public function takeOff(Section $section, Person $person, Request $request): SectionDetail
    {
        $enrollment = null;
        foreach ($this->desk->staff($section) as $row) {
            $enrollment = (string) $row->personId() === $person->id ? $row : $enrollment;
        }
        $plan = Leads::takeOff(
            $this->desk->row($section),
            $this->desk->find(Records\Person::class, $person->id),
            $enrollment ?? throw new NotFoundHttpException(),
            SchoolDay::today($section->school_id),
        );
        $this->desk->apply($plan, $section, $request, Action::TakeOff);

        return $this->reader->detail($section, Person::signedIn($request), null);
    }
}
