<?php

declare(strict_types=1);

namespace App\Retention\Http;

use App\Accounts\Http\Wishes\KeyboardWish;
use App\Accounts\PasswordAgain;
use App\Ledger\Ledger;
use App\Ledger\PlanView;
use App\Models\AccountReach;
use App\Models\Person;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Retention\Erasing;
use Illuminate\Http\Request;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;

/** One person erased on lawful request: looked at first, and then on the word of whoever is at the keyboard. */
final class EraseController
{
    public function __construct(
        private readonly Erasing $erasing,
        private readonly Ledger $ledger,
        private readonly PasswordAgain $passwordAgain,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(PlanView::class, 'What erasing a person would take away, and what stays')]
    public function plan(Person $person, Request $request): PlanView
    {
        AccountReach::mustBeHeldBy(Person::signedIn($request), $person);
        $seed = $this->kit->seed();

        return PlanView::of($this->erasing->plan($person, $seed), $seed, Action::Erase);
    }

    #[Answers(PlanView::class, 'Erase them, as looked at, for good; takes the password of whoever does it')]
    #[Takes(AsSeen::class, KeyboardWish::class)]
    public function erase(Person $person, Request $request): PlanView
    {
        $seen = Wishes::of(AsSeen::class, $request);
        $actor = Person::signedIn($request);
        AccountReach::mustBeHeldBy($actor, $person);
        // Also right after signing in: nothing brings this back.
        $this->passwordAgain->mustBe(
            $actor,
            Wishes::of(KeyboardWish::class, $request)->password,
            'This takes your password, and this is not it.',
            'password',
        );
        $seed = $this->kit->fresh($seen->seed);
        $plan = $this->ledger->holding(['people' => [$person->id]], function () use (
            $person,
            $seen,
            $seed,
            $actor,
        ): Plan {
            $plan = $this->erasing->plan($person, $seed);
            $seen->mustBe($plan, 'what is known of them');
            $this->erasing->erase($person, $plan, $actor);

            return $plan;
        });

        return PlanView::of($plan, $seed, Action::Erase);
    }
}
