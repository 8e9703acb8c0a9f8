<?php

declare(strict_types=1);

namespace App\CommandBox\Http;

use App\CommandBox\Http\Wishes\SaidWish;
use App\CommandBox\Offers;
use App\CommandBox\Views\OfferPage;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Vantrel\Core\CommandBox\CommandWords;

final class CommandController
{
    #[Answers(OfferPage::class, 'What typing this into the one box would do')]
    #[Takes(SaidWish::class)]
    public function offers(School $school, Request $request, Offers $offers): OfferPage
    {
        $wish = Wishes::of(SaidWish::class, $request);
        $said = CommandWords::read($wish->q, SchoolDay::today($school->id));

        return new OfferPage($said === null ? [] : $offers->of($said, $school, Person::signedIn($request)));
    }
}
