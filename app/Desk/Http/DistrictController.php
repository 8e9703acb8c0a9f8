<?php

declare(strict_types=1);

namespace App\Desk\Http;

use App\Desk\District;
use App\Desk\Views\DistrictDesk;
use App\Desk\WhatChanged;
use App\Models\Person;
use App\Models\Realm;
use App\Platform\Answers;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** The Desks of all schools somebody coordinates, as one. */
final class DistrictController
{
    public function __construct(private readonly District $district, private readonly WhatChanged $changed) {}

    #[Answers(DistrictDesk::class, 'What waits at all schools one coordinates, and what others have done there')]
    public function show(Realm $realm, Request $request): DistrictDesk
    {
        return $this->district->desk($realm, Person::signedIn($request)->id);
    }

    #[Answers(null, 'What others have done at these schools is read, up to now')]
    public function read(Realm $realm, Request $request): Response
    {
        $this->changed->read($realm->ids, Person::signedIn($request)->id);

        return response()->noContent();
    }
}
