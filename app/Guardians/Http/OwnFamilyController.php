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
use App\Models\Person;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Guardians\Hears;

/** A guardian's own things: address and number, how often they hear, and letting go of a child. */
final readonly class OwnFamilyController
{
    public function __construct(private ContactDesk $contact, private GuardianDesk $desk) {}

    #[Answers(OwnContactView::class, 'Own address and number, and how often one hears from the school')]
    public function show(Request $request): OwnContactView
    {
        $person = Person::signedIn($request);
        $row = DB::table('people as p')
            ->leftJoin('digest_choices as d', 'd.person_id', '=', 'p.id')
            ->where('p.id', $person->id)
            ->first(['p.email', 'p.email_state', 'p.phone', 'p.phone_confirmed', 'd.often', 'd.at_hour']);

        return new OwnContactView(
            (string) $row?->email,
            $row?->email_state === 'confirmed',
            (string) $row?->phone,
            $row?->phone !== null && $row->phone === $row->phone_confirmed,
            Hears::tryFrom((string) $row?->often) ?? Hears::UNSAID,
            (int) ($row->at_hour ?? Hears::HOUR),
        );
    }

    #[Answers(OwnContactView::class, 'Choose how often one hears, and at what hour of the school')]
    #[Takes(HearsWish::class)]
    public function hears(Request $request): OwnContactView
    {
        $wish = Wishes::of(HearsWish::class, $request);
        DB::table('digest_choices')->upsert(
            [
                'person_id' => Person::signedIn($request)->id,
                'often' => $wish->often->value,
                'at_hour' => $wish->hour,
            ],
            ['person_id'],
        );

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
