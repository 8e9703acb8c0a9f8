<?php

declare(strict_types=1);

namespace App\Sections;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\LedgerEntry;
use App\Models\Person;
use App\Models\School;
use App\Models\SchoolYear;
use App\Models\Section;
use App\Platform\SchoolDay;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records;
use Vantrel\Core\Records\SchoolRules;

/** What the controllers of a section have in common: its records as the core sees them, and the way to the ledger. */
final class SectionDesk
{
    public function __construct(public readonly Ledger $ledger, public readonly Snapshots $snapshots) {}

    /**
     * @param  Closure(LedgerEntry): void|null  $within the transaction, after all is written
     */
    public function apply(
        Plan $plan,
        Section $section,
        Request $request,
        Action $action,
        ?Closure $within = null,
    ): LedgerEntry {
        return $this->ledger->apply($plan, $section->school_id, Person::signedIn($request), $action, within: $within);
    }

    public function applyAt(Plan $plan, string $schoolId, Request $request, Action $action): LedgerEntry
    {
        return $this->ledger->apply($plan, $schoolId, Person::signedIn($request), $action);
    }

    /** A school year that is not over: the current one where none is named. */
    public function yearToWorkIn(School $school, ?string $id): SchoolYear
    {
        return SchoolYear::query()
            ->where('school_id', $school->id)
            ->where('state', '!=', 'closed')
            ->when($id !== null, fn($q) => $q->where('id', $id), fn($q) => $q->where('state', 'current'))
            ->first() ?? throw new NotFoundHttpException();
    }

    public function row(Section $section): Records\Section
    {
        return $this->find(Records\Section::class, $section->id);
    }

    /**
     * @template T of Records\Record
     *
     * @param  class-string<T>  $kind
     * @return T
     */
    public function find(string $kind, string $id): Records\Record
    {
        return $this->snapshots->find($kind, $id) ?? throw new NotFoundHttpException();
    }

    /**
     * @template T of Records\Record
     *
     * @param  class-string<T>  $kind
     * @return list<T> what belongs to the section
     */
    public function of(string $kind, Section $section): array
    {
        return $this->snapshots->list($kind, fn(Builder $q): Builder => $q->where('section_id', $section->id));
    }

    public function rules(Section $section): SchoolRules
    {
        return SchoolRules::of($this->find(Records\School::class, $section->school_id));
    }

    /** @return list<Records\Enrollment> enrollments of the section's staff that hold today */
    public function staff(Section $section): array
    {
        return $this->snapshots->list(
            Records\Enrollment::class,
            fn(Builder $q): Builder => $q
                ->where('section_id', $section->id)
                ->where('role', '!=', 'student')
                ->where(SchoolDay::inForce('enrollments', SchoolDay::today($section->school_id))),
        );
    }

    /** Somebody who is in the section now or is going to be: nobody else is reached by id. */
    public function memberOf(Section $section, Person $person): Records\Person
    {
        $in = $this->snapshots->list(
            Records\Enrollment::class,
            fn(Builder $q): Builder => $q
                ->where('section_id', $section->id)
                ->where('person_id', $person->id)
                ->where(
                    fn(Builder $o): Builder => $o
                        ->whereNull('ends_on')
                        ->orWhere('ends_on', '>', SchoolDay::today($section->school_id)),
                ),
        );

        return $in === [] ? throw new NotFoundHttpException() : $this->find(Records\Person::class, $person->id);
    }

    /** @return list<Records\Enrollment> of one person */
    public function enrollments(string $personId): array
    {
        return $this->snapshots->list(
            Records\Enrollment::class,
            fn(Builder $q): Builder => $q->where('person_id', $personId),
        );
    }
}
