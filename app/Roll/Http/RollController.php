<?php

declare(strict_types=1);

namespace App\Roll\Http;

use App\Models\Person;
use App\Models\Realm;
use App\Models\School;
use App\Models\StaffStanding;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Roll\Http\Wishes\FindWish;
use App\Roll\Http\Wishes\NamedWish;
use App\Roll\Http\Wishes\PeopleWish;
use App\Roll\Named;
use App\Roll\OnePerson;
use App\Roll\Roll;
use App\Roll\Views\LanguageChoice;
use App\Roll\Views\LanguageList;
use App\Roll\Views\NamedPage;
use App\Roll\Views\PersonDetail;
use App\Roll\Views\PersonPage;
use Illuminate\Http\Request;
use Vantrel\Core\Values\Language;

final class RollController
{
    public function __construct(private readonly Roll $roll, private readonly OnePerson $people) {}

    #[Answers(PersonPage::class, 'People of a school, or of all one coordinates, by name')]
    #[Takes(PeopleWish::class)]
    public function index(Realm $realm, Request $request): PersonPage
    {
        $wish = Wishes::of(PeopleWish::class, $request);

        return $this->roll->page($realm, $wish);
    }

    #[Answers(PersonPage::class, 'The few people a text fits best')]
    #[Takes(FindWish::class)]
    public function find(Realm $realm, Request $request): PersonPage
    {
        $wish = Wishes::of(FindWish::class, $request);
        $found = $this->roll->find($realm, $wish->q);

        return new PersonPage($found, null, count($found));
    }

    #[Answers(NamedPage::class, 'The students that a pasted list of numbers or names means')]
    #[Takes(NamedWish::class)]
    public function named(School $school, Request $request): NamedPage
    {
        $named = Named::of($school, Wishes::of(NamedWish::class, $request)->lines);

        return new NamedPage($this->roll->byId($named['ids'], Realm::of($school)), $named['nobody'], $named['several']);
    }

    #[Answers(LanguageList::class, 'Languages that families can be written to in')]
    public function languages(): LanguageList
    {
        $all = Language::all();

        return new LanguageList(
            array_map(
                fn(string $code, string $name): LanguageChoice => new LanguageChoice(
                    $code,
                    $name,
                    in_array($code, Language::WRITTEN, true),
                ),
                array_keys($all),
                $all,
            ),
        );
    }

    #[Answers(PersonDetail::class, 'One person')]
    public function show(Person $person, Request $request): PersonDetail
    {
        return $this->people->detail($person, StaffStanding::of(Person::signedIn($request))->schools);
    }
}
