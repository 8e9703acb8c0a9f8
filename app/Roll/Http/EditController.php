<?php

declare(strict_types=1);

namespace App\Roll\Http;

use App\Ledger\Ledger;
use App\Ledger\LedgerLine;
use App\Ledger\Snapshots;
use App\Models\AccountReach;
use App\Models\ConfirmedAddresses;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Roll\Http\Wishes\EditWish;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records;
use Vantrel\Core\Roll\EditPerson;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\StudentNumber;

/** One person, changed by hand. */
final class EditController
{
    public function __construct(private readonly Ledger $ledger, private readonly Snapshots $snapshots) {}

    #[Answers(LedgerLine::class, 'Change one person, field by field')]
    #[Takes(EditWish::class)]
    public function update(Person $person, Request $request): LedgerLine
    {
        $wish = Wishes::of(EditWish::class, $request);
        $actor = Person::signedIn($request);

        return $this->ledger->holding(['people' => [$person->id]], function () use (
            $person,
            $wish,
            $actor,
        ): LedgerLine {
            $record =
                $this->snapshots->find(Records\Person::class, $person->id) ??
                throw new StalePlan([$person->fullName()]);
            if ($record->version !== $wish->version) {
                throw new StalePlan([$record->fullName()]);
            }
            $school = School::query()->findOrFail($record->schoolId());
            $plan = EditPerson::plan(
                $record,
                $wish->person(),
                [
                    'lowest' => $school->lowest_grade,
                    'highest' => $school->highest_grade,
                    'domains' => self::vouchesFor($record, (string) $wish->email, $actor) ? $school->mail_domains : [],
                    'country' => $school->country,
                ],
                $this->bearer($record, (string) $wish->number),
                AccountReach::isHeldBy($actor, $record->id),
                SchoolDay::today($school->id),
                now()->format('Y-m-d H:i:s'),
            );
            if ($plan->isEmpty()) {
                throw new Refusal('Nothing of it is different from what was there.');
            }

            return LedgerLine::of($this->ledger->apply($plan, $school->id, $actor, Action::Edit), $actor->fullName());
        });
    }

    /** Nobody vouches for themselves, and no address is two people's. */
    private static function vouchesFor(Records\Person $person, string $typed, Person $actor): bool
    {
        $address = (string) MailAddress::read($typed)?->address;

        return $person->id !== $actor->id &&
            array_diff(ConfirmedAddresses::among([$address])[$address] ?? [], [$person->id]) === [];
    }

    private function bearer(Records\Person $person, string $number): ?Records\Person
    {
        $number = StudentNumber::bare($number);

        return $number === ''
            ? null
            : $this->snapshots->list(
                    Records\Person::class,
                    fn(Builder $q): Builder => $q
                        ->where('school_id', $person->schoolId())
                        ->where('kind', $person->kind())
                        ->where('number', $number)
                        ->where('id', '!=', $person->id)
                        ->where('state', '!=', Records\PersonState::Merged),
                )[0] ?? null;
    }
}
