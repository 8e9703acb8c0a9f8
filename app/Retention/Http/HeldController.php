<?php

declare(strict_types=1);

namespace App\Retention\Http;

use App\Models\AccountReach;
use App\Models\Person;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Retention\HeldDesk;
use App\Retention\Http\Wishes\HeldWish;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** What is held about somebody, handed on by the office. */
final readonly class HeldController
{
    public function __construct(private HeldDesk $desk) {}

    #[Answers('file', 'All that is held about a person, to be read or for a program')]
    #[Takes(HeldWish::class)]
    public function show(Person $person, Request $request): Response
    {
        $actor = Person::signedIn($request);
        AccountReach::mustBeHeldBy($actor, $person);
        $this->desk->note($person, $actor, '');

        return $this->desk->file($person, null, Wishes::of(HeldWish::class, $request)->format);
    }
}
