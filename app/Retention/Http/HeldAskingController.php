<?php

declare(strict_types=1);

namespace App\Retention\Http;

use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Retention\HeldDesk;
use App\Retention\Http\Wishes\HeldRefusalWish;
use App\Retention\Http\Wishes\HeldWish;
use App\Retention\Views\HeldAskings;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Guardians who ask what is held about their child, answered by a coordinator who has looked at it. */
final readonly class HeldAskingController
{
    public function __construct(private HeldDesk $desk) {}

    #[Answers(HeldAskings::class, 'Guardians who ask what is held about their child, those who wait')]
    public function index(School $school): HeldAskings
    {
        return new HeldAskings($this->desk->waiting($school), '');
    }

    #[Answers('file', 'What the guardian would be given: of other guardians nothing')]
    #[Takes(HeldWish::class)]
    public function show(School $school, string $held, Request $request): Response
    {
        return $this->desk->lookAt($school, $held, Wishes::of(HeldWish::class, $request)->format);
    }

    #[
        Answers(
            HeldAskings::class,
            'Give it: the guardian fetches it from their page for some days, and is told by mail',
        ),
    ]
    public function give(School $school, string $held, Request $request): HeldAskings
    {
        $said = $this->desk->give($school, $held, Person::signedIn($request));

        return new HeldAskings($this->desk->waiting($school), $said);
    }

    #[Answers(HeldAskings::class, 'Do not give it; the reason is kept for the school')]
    #[Takes(HeldRefusalWish::class)]
    public function refuse(School $school, string $held, Request $request): HeldAskings
    {
        $wish = Wishes::of(HeldRefusalWish::class, $request);
        $said = $this->desk->refuse($school, $held, $wish->reason, Person::signedIn($request));

        return new HeldAskings($this->desk->waiting($school), $said);
    }
}
