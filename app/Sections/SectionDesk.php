<?php

declare(strict_types=1);

namespace App\Sections;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\LedgerEntry;
use App\Models\Person;
use App\Models\Section;
use App\Platform\SchoolDay;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Placement\SchoolRules;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Plan\StalePlan;

/** What the controllers of a section have in common: its records as the core sees them, and the way to the ledger. */
final class SectionDesk
{
    public function __construct(public readonly Ledger $ledger, public readonly Snapshots $snapshots)
    {
    }

    public function actor(Request $request): Person
    {
        /** @var Person $person */
        $person = $request->user();

        return $person;
    }

    /**
     * @param  Closure(LedgerEntry): void|null  $within the transaction, after all is written
     */
    public function apply(Plan $plan, Section $section, Request $request, Action $action, ?Closure $within = null): LedgerEntry
    {
        return $this->ledger->apply($plan, $section->school_id, $this->actor($request), $action, within: $within);
    }

    public function applyAt(Plan $plan, string $schoolId, Request $request, Action $action): LedgerEntry
    {
        return $this->ledger->apply($plan, $schoolId, $this->actor($request), $action);
    }

    /** What is applied is what was looked at. */
    public function mustBeAsSeen(Plan $plan, Request $request, string $what): void
    {
        if (! hash_equals($plan->fingerprint(), $request->string('fingerprint')->value())) {
            throw new StalePlan([$what]);
        }
    }

    public function row(Section $section): Row
    {
        return $this->find(Entity::Section, $section->id);
    }

    public function find(Entity $entity, string $id): Row
    {
        return $this->snapshots->find($entity, $id) ?? throw new NotFoundHttpException;
    }

    /** @return list<Row> what belongs to the section */
    public function of(Entity $entity, Section $section): array
    {
        return $this->snapshots->list($entity, fn (Builder $q): Builder => $q->where('section_id', $section->id));
    }

    public function rules(Section $section): SchoolRules
    {
        return SchoolRules::of($this->find(Entity::School, $section->school_id));
    }

    /** @return list<Row> enrollments of the section's staff that hold today */
    public function staff(Section $section): array
    {
        return $this->snapshots->list(Entity::Enrollment, fn (Builder $q): Builder => $q->where('section_id', $section->id)->where('role', '!=', 'student')->where(SchoolDay::inForce('enrollments', SchoolDay::today($section->school_id))));
    }

    /** Somebody who is in the section now or is going to be: nobody else is reached by id. */
    public function memberOf(Section $section, Person $person): Row
    {
        $in = $this->snapshots->list(Entity::Enrollment, fn (Builder $q): Builder => $q->where('section_id', $section->id)->where('person_id', $person->id)
            ->where(fn (Builder $o): Builder => $o->whereNull('ends_on')->orWhere('ends_on', '>', SchoolDay::today($section->school_id))));

        return $in === [] ? throw new NotFoundHttpException : $this->find(Entity::Person, $person->id);
    }

    /** @return list<Row> of one person */
    public function enrollments(string $personId): array
    {
        return $this->snapshots->list(Entity::Enrollment, fn (Builder $q): Builder => $q->where('person_id', $personId));
    }
}
