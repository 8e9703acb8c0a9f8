<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Accounts\ResetLinks;
use App\Guardians\Views\ClaimLine;
use App\Guardians\Views\ClaimPage;
use App\Guardians\Views\OnRecord;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person as PersonModel;
use App\Models\School;
use App\Models\SignIn as SignInModel;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Lifetime;
use Vantrel\Core\Guardians\Claims;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\GuardianClaim;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;

/** Guardian requests, beside what the school has on record; approved or turned down. */
final readonly class ClaimDesk
{
    public function __construct(
        private Ledger $ledger,
        private Snapshots $snapshots,
        private PlannerKit $kit,
        private ResetLinks $links,
    ) {}

    public function page(School $school, string $said = ''): ClaimPage
    {
        $claims = DB::table('guardian_claims as c')
            ->join('people as s', 's.id', '=', 'c.student_id')
            ->where('s.school_id', $school->id)
            ->orderByRaw("c.state = 'waiting' desc")
            ->orderByDesc('c.made_at')
            ->orderBy('c.id')
            ->limit(300)
            ->get(['c.*', 's.called_name', 's.family_name as student_family']);
        $record = DB::table('guardianships as g')
            ->join('people as p', 'p.id', '=', 'g.guardian_id')
            ->whereIn('g.student_id', $claims->where('state', 'waiting')->pluck('student_id')->unique())
            ->where('p.state', 'active')
            ->orderBy('g.id')
            ->get(['g.student_id', 'g.state', 'p.id', 'p.given_name', 'p.family_name', 'p.email', 'p.phone'])
            ->groupBy('student_id');
        $lines = [];
        foreach ($claims as $claim) {
            /** @var Collection<int, stdClass> $known */
            $known = $record[$claim->student_id] ?? collect();
            $lines[] = self::line($claim, $claim->state === 'waiting' ? $known : collect());
        }

        return new ClaimPage($lines, $said);
    }

    /**
     * @param  string|null  $guardianId whom it is of those on record; null for somebody new
     *
     * @throws Refusal
     */
    public function approve(School $school, string $claimId, ?string $guardianId, PersonModel $actor): string
    {
        [$claim, $student] = $this->claim($school, $claimId);
        $guardianId ??= $claim->personId();
        $guardian = $guardianId === null ? null : $this->snapshots->find(Person::class, $guardianId);
        $links = $this->snapshots->list(Guardianship::class, fn($q) => $q->where('student_id', $student->id));
        $onRecord = array_map(fn(Guardianship $g): string => $g->guardianId(), $links);
        if ($guardianId !== null && $guardianId !== $claim->personId() && !in_array($guardianId, $onRecord, true)) {
            throw new Refusal('That is no guardian on record of this student.', 'guardian');
        }
        $signIns =
            $guardian === null
                ? []
                : $this->snapshots->list(SignIn::class, fn($q) => $q->where('person_id', $guardian->id));
        $taken = DB::table('sign_ins')->where('user_name', $claim->email())->exists();
        $seed = $this->kit->seed();
        $plan = Claims::approve(
            $claim,
            $student,
            $guardian,
            $links,
            $signIns,
            $taken,
            $this->kit->ids($seed),
            $this->kit->now(),
        );
        $this->ledger->apply($plan, $school->id, $actor, Action::Guardian);
        $person = PersonModel::query()->findOrFail($guardian->id ?? $this->kit->ids($seed)->for('guardian', $claimId));
        $signIn = SignInModel::query()->where('person_id', $person->id)->orderBy('id')->firstOrFail();
        if ($signIn->password !== null) {
            return $plan->sentence;
        }
        $address = $person->email ?? $claim->email();
        $this->links->send($person, $signIn, $address, Lifetime::LinkSent);

        return "$plan->sentence A link to set a password is on its way to $address.";
    }

    public function refuse(School $school, string $claimId, string $reason, PersonModel $actor): string
    {
        [$claim] = $this->claim($school, $claimId);
        $plan = Claims::refuse($claim, $reason, $this->kit->now());
        $this->ledger->apply($plan, $school->id, $actor, Action::Guardian);

        return $plan->sentence;
    }

    /** @return array{GuardianClaim, Person} */
    private function claim(School $school, string $id): array
    {
        $claim = $this->snapshots->find(GuardianClaim::class, $id) ?? throw new NotFoundHttpException();
        $student = $this->snapshots->find(Person::class, $claim->studentId());
        $into = $student?->mergedInto();
        $student = $into === null ? $student : $this->snapshots->find(Person::class, $into);
        if ($student?->schoolId() !== $school->id) {
            throw new NotFoundHttpException();
        }

        return [$claim, $student];
    }

    /** @param  Collection<int, stdClass>  $known guardians on record of the student */
    private static function line(stdClass $claim, Collection $known): ClaimLine
    {
        $name = NameKey::of("$claim->given_name $claim->family_name");
        $record = [];
        $suggested = $claim->person_id === null ? null : (string) $claim->person_id;
        foreach ($known as $person) {
            $alike = array_keys(
                array_filter([
                    'name' => NameKey::of("$person->given_name $person->family_name") === $name,
                    'address' => $person->email !== null && $person->email === $claim->email,
                    'telephone' => $person->phone !== null && $person->phone === $claim->phone,
                ]),
            );
            $record[] = new OnRecord(
                (string) $person->id,
                (new PersonName((string) $person->given_name, (string) $person->family_name))->full(),
                (string) $person->email,
                (string) $person->phone,
                (string) $person->state,
                $alike,
            );
            if ($suggested === null && $alike !== []) {
                $suggested = (string) $person->id;
            }
        }

        return new ClaimLine(
            (string) $claim->id,
            (new PersonName((string) $claim->given_name, (string) $claim->family_name))->full(),
            (string) $claim->email,
            (string) $claim->phone,
            $claim->person_id !== null,
            (new PersonName((string) $claim->called_name, (string) $claim->student_family))->full(),
            (string) $claim->state,
            (string) $claim->reason,
            Instant::iso((string) $claim->made_at),
            Instant::isoOrNull($claim->answered_at === null ? null : (string) $claim->answered_at),
            $record,
            $suggested,
        );
    }
}
