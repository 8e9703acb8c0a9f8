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
use App\Models\RecordSource;
use App\Models\School;
use App\Models\SignIn as SignInModel;
use App\OneRoster\Client\RecordClient;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Lifetime;
use Vantrel\Core\Guardians\Beside;
use Vantrel\Core\Guardians\Claimant;
use Vantrel\Core\Guardians\Claims;
use Vantrel\Core\Guardians\Likeness;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\GuardianClaim;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\Phone;

/** Guardian requests, beside what the school has on record; approved or turned down. */
final readonly class ClaimDesk
{
    public function __construct(
        private Ledger $ledger,
        private Snapshots $snapshots,
        private PlannerKit $kit,
        private ResetLinks $links,
        private SeekDesk $seek,
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
            ->get([
                'c.*',
                's.called_name',
                's.family_name as student_family',
                // Guardians went along when the student was merged.
                DB::raw('coalesce(s.merged_into, s.id) as now_id'),
            ]);
        $record = DB::table('guardianships as g')
            ->join('people as p', 'p.id', '=', 'g.guardian_id')
            ->whereIn('g.student_id', $claims->where('state', 'waiting')->pluck('now_id')->unique())
            ->where('p.state', 'active')
            ->orderBy('g.id')
            ->get([
                'g.student_id',
                'g.state',
                'g.restriction',
                'p.id',
                'p.given_name',
                'p.family_name',
                'p.email',
                'p.phone',
            ])
            ->groupBy('student_id');
        $lines = [];
        foreach ($claims as $claim) {
            /** @var Collection<int, stdClass> $known */
            $known = $record[$claim->now_id] ?? collect();
            $lines[] = self::line($claim, $claim->state === 'waiting' ? $known : collect());
        }

        return new ClaimPage($lines, $this->seek->waiting($school), $said);
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
            $actor->id,
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

    /**
     * Connects all of the chosen requests that are clear.
     *
     * @param  list<string>  $ids
     */
    public function approveMany(School $school, array $ids, PersonModel $actor): string
    {
        $connected = 0;
        $not = [];
        foreach ($this->page($school)->claims as $line) {
            if (!in_array($line->id, $ids, true) || !$line->clear) {
                continue;
            }
            try {
                $this->approve($school, $line->id, $line->signedIn ? null : $line->suggested, $actor);
                $connected++;
            } catch (Refusal $e) {
                // One of them stays where it is, and the others are none the worse for it.
                $not[] = "$line->name: {$e->getMessage()}";
            }
        }
        if ($connected === 0) {
            throw new Refusal($not[0] ?? 'None of these is clear any more. Look at them one by one.');
        }
        $said = Words::count($connected, 'guardian') . ($connected === 1 ? ' is connected.' : ' are connected.');

        return trim("$said " . ($not === [] ? '' : 'Not connected: ' . implode(' ', $not)));
    }

    /**
     * Guardians of the student in the school's record, beside whoever asks.
     *
     * @return list<OnRecord>
     *
     * @throws Refusal where there is no record, or it does not know the student
     */
    public function inRecord(School $school, string $claimId): array
    {
        [$claim, $student] = $this->claim($school, $claimId);
        $source = RecordSource::query()->find($school->id) ?? throw new Refusal('No record is set up for this school.');
        $number = $student->number() ?? throw new Refusal('The student has no number to ask the record by.');
        $likeness = new Likeness();
        $who = new Claimant(
            new PersonName($claim->givenName(), $claim->familyName()),
            $claim->email(),
            $claim->phone(),
        );
        $found = [];
        foreach ((new RecordClient($source))->guardiansOf($number) as $user) {
            $known = new Claimant(
                new PersonName($user['givenName'], $user['familyName']),
                (string) (MailAddress::read($user['email'])->address ?? ''),
                Phone::read($user['phone'], $school->country),
            );
            $found[] = new OnRecord(
                $user['id'],
                $known->name->full(),
                $known->email,
                (string) $known->phone,
                'listed',
                '',
                $likeness->alike($who, $known),
                $likeness->unlike($who, $known),
            );
        }

        return $found;
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

    /** @param  Collection<int, stdClass>  $onRecord guardians of the student */
    private static function line(stdClass $claim, Collection $onRecord): ClaimLine
    {
        $who = self::asClaimant($claim);
        $likeness = new Likeness();
        $record = [];
        $suggested = $claim->person_id ?? $claim->suggested_id;
        $suggested = $suggested === null ? null : (string) $suggested;
        foreach ($onRecord as $person) {
            $known = self::asClaimant($person);
            $alike = $likeness->alike($who, $known);
            $record[] = new OnRecord(
                (string) $person->id,
                $known->name->full(),
                $known->email,
                (string) $person->phone,
                (string) $person->state,
                (string) $person->restriction,
                $alike,
                $likeness->unlike($who, $known),
            );
            if ($suggested === null && $alike !== []) {
                $suggested = (string) $person->id;
            }
        }

        return new ClaimLine(
            (string) $claim->id,
            $who->name->full(),
            $who->email,
            (string) $claim->phone,
            $claim->person_id !== null,
            (new PersonName((string) $claim->called_name, (string) $claim->student_family))->full(),
            (string) $claim->state,
            (string) $claim->reason,
            Instant::iso((string) $claim->made_at),
            Instant::isoOrNull($claim->answered_at === null ? null : (string) $claim->answered_at),
            $record,
            $suggested,
            $claim->state === 'waiting' &&
                Claims::isClear(
                    $claim->suggested_id === null ? null : (string) $claim->suggested_id,
                    array_map(
                        fn(OnRecord $o): Beside => new Beside(
                            $o->id,
                            GuardianshipState::from($o->state),
                            $o->restriction !== '',
                            $o->alike,
                        ),
                        $record,
                    ),
                ),
        );
    }

    private static function asClaimant(stdClass $row): Claimant
    {
        return new Claimant(
            new PersonName((string) $row->given_name, (string) $row->family_name),
            (string) $row->email,
            $row->phone === null ? null : (string) $row->phone,
        );
    }
}
