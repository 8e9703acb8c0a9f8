<?php

declare(strict_types=1);

namespace App\Retention;

use App\Ledger\Ledger;
use App\Mailroom\Mail\AccountNotice;
use App\Models\Person;
use App\Models\School;
use App\Platform\Instant;
use App\Platform\SchoolDay;
use App\Retention\Views\HeldAsking;
use App\Retention\Views\OwnHeldChild;
use App\Rosters\Children;
use Closure;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Guardians\HeldGrant;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;

/**
 * What is held about somebody, handed on: by the office, or to a guardian who has asked, once the school has looked at
 * what they would get. Each handing on stands in the Ledger.
 */
final readonly class HeldDesk
{
    public function __construct(private Ledger $ledger) {}

    /** @param  string  $format pdf or json */
    public function file(Person $person, ?string $guardianId, string $format): Response
    {
        $held = Held::about($person->id, $guardianId);
        $day = SchoolDay::today($person->school_id);
        $school = School::query()->findOrFail($person->school_id)->name;
        $body =
            $format === 'json'
                ? json_encode(
                    ['name' => $person->fullName(), 'school' => $school, 'day' => $day, 'held' => $held],
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_PRETTY_PRINT | JSON_INVALID_UTF8_SUBSTITUTE,
                )
                : HeldPdf::of($held, $person->fullName(), $school, $day);

        return response($body, 200, [
            'Content-Type' => $format === 'json' ? 'application/json' : 'application/pdf',
            'Content-Disposition' => "attachment; filename=\"held-$day.$format\"",
            'Cache-Control' => 'no-store, private',
        ]);
    }

    /**
     * Notes in the Ledger that somebody has taken all that is held about a person.
     *
     * @param  (Closure(): void)|null  $within what is done together with it
     */
    public function note(Person $person, Person $actor, string $to, ?Closure $within = null): void
    {
        $this->ledger->apply(
            new Plan("What is held about {$person->fullName()}", "Taken by {$actor->fullName()}$to.", []),
            $person->school_id,
            $actor,
            Action::Seen,
            within: $within,
        );
    }

    /** @return list<OwnHeldChild> each child of a guardian, and how it stands with what is held about them */
    public function of(Person $guardian): array
    {
        return array_values(
            DB::table('people as s')
                ->leftJoin(
                    'held_askings as h',
                    fn($on) => $on->on('h.student_id', '=', 's.id')->where('h.guardian_id', $guardian->id),
                )
                ->whereIn('s.id', Children::of($guardian))
                ->orderBy('s.called_name')
                ->orderBy('s.id')
                ->get(['s.id', 's.called_name', 'h.state', 'h.answered_at'])
                ->map(
                    fn(stdClass $s): OwnHeldChild => new OwnHeldChild(
                        (string) $s->id,
                        (string) $s->called_name,
                        self::over($s) ? '' : (string) $s->state,
                        $s->state === 'given' ? Instant::iso(HeldGrant::until((string) $s->answered_at)) : null,
                    ),
                )
                ->all(),
        );
    }

    public function ask(Person $guardian, string $childId): void
    {
        $this->mustBeTheirs($guardian, $childId);
        $row = DB::table('held_askings')->where('student_id', $childId)->where('guardian_id', $guardian->id)->first();
        if ($row !== null && !self::over($row) && $row->state !== 'refused') {
            return;
        }
        DB::table('held_askings')->upsert(
            [
                [
                    'id' => (string) Str::ulid(),
                    'student_id' => $childId,
                    'guardian_id' => $guardian->id,
                    'state' => 'waiting',
                    'made_at' => now(),
                    'reason' => null,
                    'answered_at' => null,
                    'answered_by' => null,
                ],
            ],
            ['student_id', 'guardian_id'],
            ['state', 'made_at', 'reason', 'answered_at', 'answered_by'],
        );
    }

    /** What a guardian was given, for as long as it can be fetched. */
    public function own(Person $guardian, string $childId, string $format): Response
    {
        $this->mustBeTheirs($guardian, $childId);
        $row = DB::table('held_askings')->where('student_id', $childId)->where('guardian_id', $guardian->id)->first();
        if ($row === null || $row->state !== 'given' || self::over($row)) {
            throw new NotFoundHttpException();
        }
        $child = Person::query()->findOrFail($childId);
        $this->note($child, $guardian, ', to whom the school has given it');

        return $this->file($child, $guardian->id, $format);
    }

    /** @return list<HeldAsking> of a school, those that wait, the first of them first */
    public function waiting(School $school): array
    {
        return array_values(
            DB::table('held_askings as h')
                ->join('people as s', 's.id', '=', 'h.student_id')
                ->join('people as g', 'g.id', '=', 'h.guardian_id')
                ->where('s.school_id', $school->id)
                ->where('h.state', 'waiting')
                ->orderBy('h.made_at')
                ->orderBy('h.id')
                ->limit(100)
                ->get([
                    'h.id',
                    'h.made_at',
                    DB::raw("TRIM(CONCAT(s.called_name, ' ', s.family_name)) as child"),
                    DB::raw("TRIM(CONCAT(g.given_name, ' ', g.family_name)) as guardian"),
                ])
                ->map(
                    fn(stdClass $h): HeldAsking => new HeldAsking(
                        (string) $h->id,
                        (string) $h->guardian,
                        (string) $h->child,
                        Instant::iso((string) $h->made_at),
                    ),
                )
                ->all(),
        );
    }

    /** What would be given, for whoever answers to look at. */
    public function lookAt(School $school, string $id, string $format): Response
    {
        [$child, $guardian] = $this->asked($school, $id);

        return $this->file($child, $guardian->id, $format);
    }

    /** @return string what was done, in a sentence */
    public function give(School $school, string $id, Person $actor): string
    {
        [$child, $guardian] = $this->asked($school, $id);
        if (!in_array($child->id, Children::of($guardian), true)) {
            throw new Refusal('They are not connected with this child any more, so it cannot be given to them.');
        }
        $this->note(
            $child,
            $actor,
            ", and given to {$guardian->fullName()}",
            fn() => $this->answer($id, ['state' => 'given'], $actor),
        );
        AccountNotice::tell($guardian, 'held', ['child' => $child->calledName()]);

        return "{$guardian->fullName()} finds what is held about {$child->calledName()} on their page, for " .
            HeldGrant::DAYS .
            ' days.';
    }

    /** @return string what was done, in a sentence */
    public function refuse(School $school, string $id, string $reason, Person $actor): string
    {
        [$child, $guardian] = $this->asked($school, $id);
        $this->answer($id, ['state' => 'refused', 'reason' => $reason], $actor);

        return "{$guardian->fullName()} is not given what is held about {$child->calledName()}: $reason";
    }

    /** @param  array<string, string>  $with */
    private function answer(string $id, array $with, Person $actor): void
    {
        $done = DB::table('held_askings')
            ->where('id', $id)
            ->where('state', 'waiting')
            ->update([...$with, 'answered_at' => now(), 'answered_by' => $actor->id]);
        if ($done !== 1) {
            throw new NotFoundHttpException();
        }
    }

    /** @return array{Person, Person} the child and the guardian of one that waits */
    private function asked(School $school, string $id): array
    {
        $row = DB::table('held_askings')->where('id', $id)->where('state', 'waiting')->first();
        $child = $row === null ? null : Person::query()->where('id', $row->student_id)->first();
        if ($row === null || $child === null || $child->school_id !== $school->id) {
            throw new NotFoundHttpException();
        }

        return [$child, Person::query()->where('id', $row->guardian_id)->firstOrFail()];
    }

    private function mustBeTheirs(Person $guardian, string $childId): void
    {
        if (!in_array($childId, Children::of($guardian), true)) {
            throw new NotFoundHttpException();
        }
    }

    private static function over(stdClass $row): bool
    {
        return $row->state === 'given' &&
            HeldGrant::until((string) $row->answered_at) < now('UTC')->format('Y-m-d H:i:s');
    }
}
