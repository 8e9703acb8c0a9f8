<?php

declare(strict_types=1);

namespace App\Guardians\Http;

use App\Guardians\Http\Wishes\FamilyAskWish;
use App\Guardians\Http\Wishes\FamilySeekWish;
use App\Guardians\SeekDesk;
use App\Guardians\TypedGuardian;
use App\Guardians\Views\FamilyAnswer;
use App\Guardians\Views\SchoolChoice;
use App\Guardians\Views\SchoolChoices;
use App\Ledger\Snapshots;
use App\Models\Person as PersonModel;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\TryCounter;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Guardians\Claimant;
use Vantrel\Core\Guardians\Sought;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Person;

/** Guardians who come without a letter: they say which child they mean, and are told only that it is looked at. */
final readonly class SeekController
{
    public function __construct(private SeekDesk $desk, private Snapshots $snapshots, private TryCounter $tries) {}

    #[Answers(SchoolChoices::class, 'Schools that a guardian without a letter can ask')]
    public function schools(): SchoolChoices
    {
        return new SchoolChoices(
            array_values(
                School::query()
                    ->orderBy('name')
                    ->get(['id', 'name'])
                    ->map(fn(School $s): SchoolChoice => new SchoolChoice($s->id, $s->name))
                    ->all(),
            ),
        );
    }

    #[Answers(null, 'Ask a school without a letter and without an account; the answer is the same whatever is found')]
    #[Takes(FamilySeekWish::class, FamilyAskWish::class)]
    public function ask(Request $request): Response
    {
        [$school, $child] = $this->sought($request);
        $this->desk->seek(
            $school,
            $child,
            TypedGuardian::of(Wishes::of(FamilyAskWish::class, $request), $school->country),
        );

        return response()->noContent();
    }

    #[Answers(FamilyAnswer::class, 'Ask a school without a letter, from an account')]
    #[Takes(FamilySeekWish::class)]
    public function askFromAccount(Request $request): FamilyAnswer
    {
        $actor = PersonModel::signedIn($request);
        [$school, $child] = $this->sought($request);

        return new FamilyAnswer(
            $this->desk->seek(
                $school,
                $child,
                new Claimant(
                    new PersonName($actor->given_name, $actor->family_name),
                    (string) ($actor->email ?? ''),
                    $actor->phone,
                    $this->snapshots->find(Person::class, $actor->id),
                ),
            ),
        );
    }

    /** @return array{School, Sought} */
    private function sought(Request $request): array
    {
        $wish = Wishes::of(FamilySeekWish::class, $request);
        $school = School::query()->find($wish->school) ?? throw new Refusal('Choose the school.', 'school');
        $name = TypedGuardian::name($wish->childGivenName, $wish->childFamilyName);
        if ($name->given === '' && $name->family === '') {
            throw new Refusal('Type the name of the child.', 'child_given_name');
        }
        // Counted before anything is looked for: being turned away says nothing of what would have been found.
        $limits = [[Limit::SeekAddress, (string) $request->ip()], [Limit::SeekSchool, $school->id]];
        $this->tries->take(...$limits);

        return [$school, new Sought($name, $wish->birthDate)];
    }
}
