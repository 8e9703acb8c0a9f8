<?php

declare(strict_types=1);

namespace App\Door\Http;

use App\Accounts\SignInDesk;
use App\Accounts\Views\Me;
use App\Door\Http\Wishes\TapWish;
use App\Door\Views\RoomName;
use App\Door\Views\RoomView;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Platform\Answers;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\TokenWish;
use App\Platform\TryCounter;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Accounts\OwnSecrets;
use Vantrel\Core\Accounts\Pictures;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Door\RoomPasses;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;

/** The room pass on a shared device: the section's name list, and a student tapping the own name. */
final class RoomController
{
    public function __construct(
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
        private readonly Ledger $ledger,
        private readonly SignInDesk $signIns,
        private readonly TryCounter $tries,
    ) {}

    #[Answers(RoomView::class, 'The name list a room pass opens')]
    #[Takes(TokenWish::class)]
    public function show(Request $request): RoomView
    {
        $wish = Wishes::of(TokenWish::class, $request);
        [$pass, $section, $school] = $this->open($request, $wish->token);

        return new RoomView(
            $section->name(),
            $school->name(),
            array_values(
                $this->students($section, $school)
                    ->map(
                        fn(object $s): RoomName => new RoomName(
                            $this->key($pass, $s->id),
                            (new PersonName($s->given_name, $s->family_name))->display(),
                            $s->pictures !== null,
                        ),
                    )
                    ->all(),
            ),
            $pass->pictures(),
            $pass->pictures() ? Pictures::ALL : [],
        );
    }

    #[Answers(Me::class, 'Come in by tapping a name, and three pictures where the pass asks for them')]
    #[Takes(TapWish::class)]
    public function enter(Request $request): Me
    {
        $wish = Wishes::of(TapWish::class, $request);
        [$pass, $section, $school] = $this->open($request, $wish->token);
        $found =
            $this->students($section, $school)->first(
                fn(object $s): bool => hash_equals($this->key($pass, $s->id), $wish->key),
            ) ?? throw new Refusal('That name is not on the list any more. Look at the list again.');
        $person = Person::query()->findOrFail($found->id);
        if ($pass->pictures()) {
            $this->pictures($person, $wish->pictures);
        }
        $this->signIns->byRoomPass($request, $person, $pass->id);

        return Me::of($person);
    }

    /**
     * The first three pictures a child taps are the ones they have from then on.
     *
     * @param  list<string>  $chosen
     */
    private function pictures(Person $person, array $chosen): void
    {
        $limit = [Limit::Pictures, $person->id];
        $this->tries->take($limit);
        // Few ways to choose three pictures: the hash is keyed, so that a copy of the database alone tells nothing.
        $hash = hash_hmac('sha256', "$person->id " . Pictures::word($chosen), (string) config('app.key'));
        if ($person->pictures === null) {
            Pictures::mustBeNew($chosen);
            $row = $this->snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException();
            $this->ledger->apply(OwnSecrets::pictures($row, $hash), $person->school_id, $person, Action::Pictures);
            $this->tries->clear(...$limit);

            return;
        }
        if (!hash_equals($person->pictures, $hash)) {
            throw new Refusal('Those are not your pictures, or not in that order. Try again.', 'pictures');
        }
        $this->tries->clear(...$limit);
    }

    /** @return array{Records\RoomPass, Records\Section, Records\School} pass, section, school */
    private function open(Request $request, string $token): array
    {
        $pass =
            $this->snapshots->list(
                Records\RoomPass::class,
                fn($q) => $q->where('token_hash', Token::hashOf($token)),
            )[0] ?? null;
        if ($pass === null) {
            $limit = [Limit::RoomAddress, (string) $request->ip()];
            $this->tries->take($limit);
            throw new NotFoundHttpException();
        }
        $section =
            $this->snapshots->find(Records\Section::class, $pass->sectionId()) ?? throw new NotFoundHttpException();
        $school =
            $this->snapshots->find(Records\School::class, $section->schoolId()) ?? throw new NotFoundHttpException();
        $shut = RoomPasses::shut($pass, $section, $school, $this->kit->now(), SchoolDay::clock($school->id));
        if ($shut !== null) {
            throw $shut;
        }

        return [$pass, $section, $school];
    }

    /** @return Collection<int, object{id: string, given_name: string, family_name: string, pictures: string|null}> */
    private function students(Records\Section $section, Records\School $school): Collection
    {
        /**
         * @var Collection<int, object{id: string, given_name: string, family_name: string, pictures: string|null}>
         *     $students
         */
        $students = DB::table('enrollments as e')
            ->join('people as p', 'p.id', '=', 'e.person_id')
            ->where('e.section_id', $section->id)
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', SchoolDay::today($school->id)))
            ->where('p.state', 'active')
            ->orderBy('p.called_name')
            ->orderBy('p.family_name')
            ->get(['p.id', 'p.called_name as given_name', 'p.family_name', 'p.pictures']);

        return $students;
    }

    private function key(Records\RoomPass $pass, string $personId): string
    {
        return hash_hmac('sha256', "$pass->id $personId", (string) config('app.key'));
    }
}
