<?php

declare(strict_types=1);

namespace App\Retention\Http;

use App\Models\Person;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Retention\HeldDesk;
use App\Retention\Http\Wishes\HeldWish;
use App\Retention\Views\OwnHeld;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** A guardian asks what is held about their children, and fetches what the school has given. */
final readonly class OwnHeldController
{
    public function __construct(private HeldDesk $desk) {}

    #[Answers(OwnHeld::class, 'The own children, and whether one has asked what is held about them')]
    public function index(Request $request): OwnHeld
    {
        return new OwnHeld($this->desk->of(Person::signedIn($request)));
    }

    #[Answers(OwnHeld::class, 'Ask the school for all that is held about a child; it looks first')]
    public function ask(string $person, Request $request): OwnHeld
    {
        $this->desk->ask(Person::signedIn($request), $person);

        return $this->index($request);
    }

    #[Answers('file', 'All that is held about a child, once the school has given it')]
    #[Takes(HeldWish::class)]
    public function show(string $person, Request $request): Response
    {
        return $this->desk->own(Person::signedIn($request), $person, Wishes::of(HeldWish::class, $request)->format);
    }
}
