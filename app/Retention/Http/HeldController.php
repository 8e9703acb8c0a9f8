<?php

declare(strict_types=1);

namespace App\Retention\Http;

use App\Models\AccountReach;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Retention\Held;
use App\Retention\HeldPdf;
use App\Retention\Http\Wishes\HeldWish;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** What is held about somebody, for them or for a guardian whom the school has looked at. */
final class HeldController
{
    #[Answers('file', 'All that is held about a person, to be read or for a program')]
    #[Takes(HeldWish::class)]
    public function show(Person $person, Request $request): Response
    {
        $wish = Wishes::of(HeldWish::class, $request);
        AccountReach::mustBeHeldBy(Person::signedIn($request), $person);
        $held = Held::about($person->id);
        $day = SchoolDay::today($person->school_id);
        $school = School::query()->findOrFail($person->school_id)->name;
        $body =
            $wish->format === 'json'
                ? json_encode(
                    ['name' => $person->fullName(), 'school' => $school, 'day' => $day, 'held' => $held],
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_PRETTY_PRINT | JSON_INVALID_UTF8_SUBSTITUTE,
                )
                : HeldPdf::of($held, $person->fullName(), $school, $day);

        return response($body, 200, [
            'Content-Type' => $wish->format === 'json' ? 'application/json' : 'application/pdf',
            'Content-Disposition' => "attachment; filename=\"held-$day.$wish->format\"",
            'Cache-Control' => 'no-store, private',
        ]);
    }
}
