<?php

declare(strict_types=1);

namespace App\Guardians\Http;

use App\Guardians\ContactDesk;
use App\Guardians\GuardianDesk;
use App\Guardians\Http\Wishes\ContactCodesWish;
use App\Guardians\Http\Wishes\ContactWish;
use App\Guardians\Http\Wishes\HearsWish;
use App\Guardians\Views\ContactBegun;
use App\Guardians\Views\OwnContactView;
use App\Mailroom\HearsChoices;
use App\Models\Person;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;

/** A guardian's own things: address and number, how often they hear, and letting go of a child. */
final readonly class OwnFamilyController
{
    public function __construct(private ContactDesk $contact, private GuardianDesk $desk) {}

    #[Answers(OwnContactView::class, 'Own address and number, and how often one hears from the school')]
    public function show(Request $request): OwnContactView
    {
        $person = Person::signedIn($request);
        $row = DB::table('people')
            ->where('id', $person->id)
            ->first(['email', 'email_state', 'phone', 'phone_confirmed']);
        $hears = HearsChoices::of($person->id);

        return new OwnContactView(
            (string) $row?->email,
            $row?->email_state === 'confirmed',
            (string) $row?->phone,
            $row?->phone !== null && $row->phone === $row->phone_confirmed,
            $hears->often,
            $hears->hour,
        );
    }

    #[Answers(OwnContactView::class, 'Choose how often one hears, and at what hour of the school')]
    #[Takes(HearsWish::class)]
    public function hears(Request $request): OwnContactView
    {
        $wish = Wishes::of(HearsWish::class, $request);
        HearsChoices::choose(Person::signedIn($request)->id, $wish->often, $wish->hour);

        return $this->show($request);
    }

    #[Answers(ContactBegun::class, 'Change one’s address or number: codes go to the new one, and to the old one')]
    #[Takes(ContactWish::class)]
    public function begin(Request $request): ContactBegun
    {
        $wish = Wishes::of(ContactWish::class, $request);

        return new ContactBegun($this->contact->begin(Person::signedIn($request), $wish->what, $wish->value));
    }

    #[Answers(OwnContactView::class, 'Confirm it with the codes')]
    #[Takes(ContactCodesWish::class)]
    public function confirm(Request $request): OwnContactView
    {
        $wish = Wishes::of(ContactCodesWish::class, $request);
        $this->contact->confirm(Person::signedIn($request), $wish->new, $wish->old);

        return $this->show($request);
    }

    #[Answers(null, 'Let go of a child: nothing of it is seen any more')]
    public function leave(Request $request, string $person): Response
    {
        $this->desk->leave(Person::signedIn($request), $person);

        return response()->noContent();
    }
}
