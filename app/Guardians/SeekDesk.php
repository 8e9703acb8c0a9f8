<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Door\DoorMatch;
use App\Guardians\Views\MaybeChild;
use App\Guardians\Views\SoughtLine;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\FamilyAsking;
use App\Models\Person as PersonModel;
use App\Models\School;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use App\Rosters\Children;
use Illuminate\Support\Str;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Guardians\Askings;
use Vantrel\Core\Guardians\Claimant;
use Vantrel\Core\Guardians\Sought;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\GuardianClaim;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Values\GradeLevel;

/**
 * Guardians who come without a letter. Whoever asks learns nothing of who goes to the school: the answer is one, and
 * what they wrote waits as they wrote it until a coordinator has found the child.
 */
final readonly class SeekDesk
{
    /** Shown at once, those who came first; the others follow as these are answered. */
    private const SHOWN = 50;

    public function __construct(
        private DoorMatch $match,
        private TieReader $ties,
        private Snapshots $snapshots,
        private Ledger $ledger,
        private InviteDesk $invites,
        private PlannerKit $kit,
    ) {}

    /** @return bool whether whoever asks from an account is connected now */
    public function seek(School $school, Sought $child, Claimant $claimant): bool
    {
        $account = $claimant->person === null ? null : PersonModel::query()->findOrFail($claimant->person->id);
        $studentId = $child->found(
            $this->match->of($school->id, $child->name, $child->birthDate, number: null, grade: null),
        );
        $student = $studentId === null ? null : $this->snapshots->find(Person::class, $studentId);
        if ($student !== null) {
            if ($account !== null && in_array($student->id, Children::of($account), true)) {
                return true;
            }
            $planned = Askings::seek(
                $student,
                $claimant,
                $this->ties->record($student->id),
                TieReader::policy($school->id),
                $this->kit->now(),
            );
            if (!$planned->plan->isEmpty()) {
                $this->ledger->apply($planned->plan, $school->id, $account, Action::AskGuardian);

                return true;
            }
            if ($planned->result->sends && $planned->result->whom !== null) {
                $this->invites->linkOnAsking($school, $planned->result->whom->person->id);

                return false;
            }
        }
        $this->keep($school, $child, $claimant);

        return false;
    }

    /** @return list<SoughtLine> those who came first, first */
    public function waiting(School $school): array
    {
        return array_values(
            FamilyAsking::waiting()
                ->where('f.school_id', $school->id)
                ->orderBy('f.made_at')
                ->orderBy('f.id')
                ->limit(self::SHOWN)
                ->get('f.*')
                ->map(
                    fn(stdClass $a): SoughtLine => new SoughtLine(
                        (string) $a->id,
                        trim("$a->given_name $a->family_name"),
                        (string) $a->email,
                        (string) $a->phone,
                        $a->person_id !== null,
                        trim("$a->child_given $a->child_family"),
                        (string) $a->child_birth_date,
                        Instant::iso((string) $a->made_at),
                    ),
                )
                ->all(),
        );
    }

    /** @return list<MaybeChild> students whom they may mean, likeliest first */
    public function candidates(School $school, string $askingId): array
    {
        $asking = $this->asking($school, $askingId);
        $child = self::sought($asking);
        $candidates = $this->match->of($school->id, $child->name, $child->birthDate, number: null, grade: null);
        $found = $child->found($candidates);

        return array_map(
            fn(Candidate $c): MaybeChild => new MaybeChild(
                $c->subject->id,
                (new PersonName($c->subject->given, $c->subject->family))->full(),
                $c->subject->birthDate,
                GradeLevel::read($c->subject->grade)?->short() ?? '',
                $c->subject->number,
                $c->subject->id === $found,
            ),
            $candidates,
        );
    }

    /** What they wrote becomes a request about this student, beside the guardians on record. */
    public function found(School $school, string $askingId, string $studentId, PersonModel $actor): string
    {
        $asking = $this->asking($school, $askingId);
        $student = $this->snapshots->find(Person::class, $studentId);
        if ($student?->schoolId() !== $school->id) {
            throw new NotFoundHttpException();
        }
        $planned = Askings::found(
            $student,
            $this->claimant($asking),
            $this->ties->record($student->id),
            $this->snapshots->list(GuardianClaim::class, fn($q) => $q->where('student_id', $student->id)),
            $this->kit->occasion($school->id),
        );
        $this->ledger->apply(
            $planned->plan,
            $school->id,
            $actor,
            Action::AskGuardian,
            within: fn() => $this->answer($asking, ['claim_id' => $planned->result]),
        );

        return "{$planned->plan->sentence} Look at who is on record, and answer.";
    }

    public function refuse(School $school, string $askingId, string $reason, PersonModel $actor): string
    {
        $asking = $this->asking($school, $askingId);
        $this->answer($asking, ['state' => 'refused', 'reason' => $reason, 'answered_by' => $actor->id]);

        return trim("$asking->given_name $asking->family_name") . " is turned down: $reason";
    }

    /** Kept once, however often it is sent. */
    private function keep(School $school, Sought $child, Claimant $claimant): void
    {
        $said = [
            'school_id' => $school->id,
            'email' => $claimant->email,
            'child_given' => $child->name->given,
            'child_family' => $child->name->family,
            'child_birth_date' => $child->birthDate,
            'state' => 'waiting',
        ];
        $same = FamilyAsking::waiting()->where('f.person_id', $claimant->person?->id);
        foreach ($said as $column => $value) {
            $same->where("f.$column", $value);
        }
        if ($same->exists()) {
            return;
        }
        FamilyAsking::query()->create([
            'id' => (string) Str::ulid(),
            ...$said,
            'person_id' => $claimant->person?->id,
            'given_name' => $claimant->name->given,
            'family_name' => $claimant->name->family,
            'phone' => $claimant->phone,
            'made_at' => $this->kit->now(),
        ]);
    }

    private function asking(School $school, string $id): FamilyAsking
    {
        $asking = FamilyAsking::query()->where('school_id', $school->id)->find($id);
        if ($asking === null) {
            throw new NotFoundHttpException();
        }
        if (!FamilyAsking::waiting()->where('f.id', $id)->exists()) {
            throw self::answered();
        }

        return $asking;
    }

    /**
     * @param  array<string, string>  $with
     *
     * @throws Refusal where somebody else has answered meanwhile
     */
    private function answer(FamilyAsking $asking, array $with): void
    {
        $done = FamilyAsking::query()
            ->where('id', $asking->id)
            ->where('state', 'waiting')
            ->where('claim_id', $asking->claim_id)
            ->update([...$with, 'answered_at' => $this->kit->now()]);
        if ($done === 0) {
            throw self::answered();
        }
    }

    private static function answered(): Refusal
    {
        return new Refusal('This has been answered already.');
    }

    private function claimant(FamilyAsking $asking): Claimant
    {
        $person = $asking->person_id === null ? null : $this->snapshots->find(Person::class, $asking->person_id);
        $into = $person?->mergedInto();

        return new Claimant(
            new PersonName($asking->given_name, $asking->family_name),
            $asking->email,
            $asking->phone,
            $into === null ? $person : $this->snapshots->find(Person::class, $into),
        );
    }

    private static function sought(FamilyAsking $asking): Sought
    {
        return new Sought(new PersonName($asking->child_given, $asking->child_family), $asking->child_birth_date);
    }
}
