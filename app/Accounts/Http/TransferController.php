<?php

declare(strict_types=1);

namespace App\Accounts\Http;

use App\Accounts\Views\TransferLine;
use App\Accounts\Views\TransferPage;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\TransferRequests;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records;
use Vantrel\Core\Values\GradeLevel;

/**
 * What one school asks of another about a student: seen by both, answered by the school the student is at.
 *
 * @phpstan-import-type Listed from TransferRequests
 */
final class TransferController
{
    private const SHOWN = 200;

    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(TransferPage::class, 'Requests of other schools about students of this one, and this one’s own')]
    public function index(School $school): TransferPage
    {
        return $this->page($school, '');
    }

    #[Answers(TransferPage::class, 'Let the student go, or come to the other school too; stands in both ledgers')]
    public function accept(School $school, string $transfer, Request $request): TransferPage
    {
        $row = $this->find($transfer, 'from_school_id', $school);
        $to = $row->toSchoolId();
        $said = TransferRequests::said($row);
        $plan = TransferRequests::accept(
            $row,
            $this->snapshots->forTransfer([$row->personId()], $to, [$said['number']], $said['sections']),
            Person::signedIn($request)->id,
            $this->kit->occasion($to),
        );

        return $this->apply($plan, $school, $request, [$to]);
    }

    #[Answers(TransferPage::class, 'Turn the request down')]
    public function refuse(School $school, string $transfer, Request $request): TransferPage
    {
        $row = $this->find($transfer, 'from_school_id', $school);
        $name = Person::query()->findOrFail((string) $row->personId())->fullName();

        return $this->apply(
            TransferRequests::refuse($row, $name, Person::signedIn($request)->id, $this->kit->now()),
            $school,
            $request,
            [],
        );
    }

    #[Answers(TransferPage::class, 'Take back what this school has asked')]
    public function withdraw(School $school, string $transfer, Request $request): TransferPage
    {
        $row = $this->find($transfer, 'to_school_id', $school);

        return $this->apply(
            TransferRequests::withdraw($row, Person::signedIn($request)->id, $this->kit->now()),
            $school,
            $request,
            [],
        );
    }

    /** @param  list<string>  $also */
    private function apply(Plan $plan, School $school, Request $request, array $also): TransferPage
    {
        $this->ledger->apply($plan, $school->id, Person::signedIn($request), Action::Transfer, also: $also);

        return $this->page($school, $plan->sentence);
    }

    private function find(string $id, string $side, School $school): Records\TransferRequest
    {
        $row = $this->snapshots->find(Records\TransferRequest::class, $id);

        return $row !== null && $row->field($side) === $school->id ? $row : throw new NotFoundHttpException();
    }

    private function page(School $school, string $said): TransferPage
    {
        $rows = $this->snapshots->list(
            Records\TransferRequest::class,
            fn(Builder $q): Builder => $q
                ->where(
                    fn(Builder $o): Builder => $o
                        ->where('from_school_id', $school->id)
                        ->orWhere('to_school_id', $school->id),
                )
                ->reorder()
                ->orderByRaw("state = 'waiting' desc")
                ->orderByDesc('made_at')
                ->limit(self::SHOWN),
        );
        $schools = DB::table('schools')->pluck('name', 'id')->all();
        $people = Person::query()
            ->whereIn('id', array_map(fn(Records\TransferRequest $r): string => (string) $r->personId(), $rows))
            ->get()
            ->keyBy('id');
        $askers = Person::query()
            ->whereIn('id', array_filter(array_map(fn(Records\TransferRequest $r): ?string => $r->askedBy(), $rows)))
            ->get()
            ->keyBy('id');

        return new TransferPage(
            array_map(function (Records\TransferRequest $r) use ($school, $schools, $people, $askers): TransferLine {
                $ours = $r->fromSchoolId() === $school->id;
                $says = TransferRequests::said($r);
                /** @var Person|null $person */
                $person = $people->get((string) $r->personId());
                // The school that asks hears nothing of the student's record from here, whatever the answer.
                $judged = $ours && $person !== null ? self::judge($says, $person, $r->toSchoolId()) : null;
                /** @var Person|null $asker */
                $asker = $askers->get((string) $r->askedBy());

                return new TransferLine(
                    $r->id,
                    $ours,
                    $r->kind(),
                    $r->state(),
                    (string) ($schools[$ours ? $r->toSchoolId() : $r->fromSchoolId()] ?? ''),
                    implode(
                        ', ',
                        array_filter(
                            [
                                trim("{$says['given_name']} {$says['family_name']}"),
                                GradeLevel::read($says['grade'])?->label() ?? '',
                                $says['number'] === '' ? '' : "number {$says['number']}",
                                $says['birth_date'] === '' ? '' : "born {$says['birth_date']}",
                            ],
                            fn(string $s): bool => $s !== '',
                        ),
                    ),
                    $says['section_names'],
                    $ours && $person !== null
                        ? implode(
                            ', ',
                            array_filter(
                                [
                                    $person->fullName(),
                                    GradeLevel::read((string) $person->grade)?->label() ?? '',
                                    $person->state === 'left' ? 'has left' : '',
                                ],
                                fn(string $s): bool => $s !== '',
                            ),
                        )
                        : '',
                    $ours ? $person?->id : null,
                    $judged?->probability,
                    $judged->evidence ?? [],
                    $asker?->fullName() ?? 'Vantrel',
                    Instant::iso($r->madeAt()),
                    Instant::isoOrNull($r->answeredAt()),
                );
            }, $rows),
            $said,
        );
    }

    /**
     * @param  Listed  $said
     */
    private static function judge(array $said, Person $person, string $toSchoolId): Candidate
    {
        $row = new Subject(
            'row',
            $said['given_name'],
            $said['family_name'],
            $said['birth_date'],
            $said['number'],
            '',
            $said['grade'],
            $toSchoolId,
        );
        $known = new Subject(
            $person->id,
            $person->given_name,
            $person->family_name,
            (string) $person->birth_date,
            (string) $person->number,
            '',
            (string) $person->grade,
            $person->school_id,
        );

        return Matcher::link([$row], [$known])->judge($row, $known);
    }
}
