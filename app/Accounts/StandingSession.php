<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\StaffStanding;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\Response;
use Vantrel\Core\Door\RoomPasses;
use Vantrel\Core\Records;

/**
 * A session stands only while what opened it does: a card that is not lost, the secret that was typed, a sign-on that
 * has not been ended, a room pass that works now. It is looked at with every request, so that ending any of them is
 * felt by the next one.
 */
final class StandingSession
{
    public function __construct(private readonly Snapshots $snapshots, private readonly PlannerKit $kit) {}

    public function handle(Request $request, Closure $next): Response
    {
        $guard = Auth::guard();
        $person = $request->user();
        $bySession =
            $request->hasSession() &&
            $person instanceof Person &&
            $request->session()->get($guard->getName()) === $person->id;
        if ($bySession && !$this->stands($request, $person, Opened::of($request->session()))) {
            Auth::logout();
            $request->session()->invalidate();
        }

        return $next($request);
    }

    private function stands(Request $request, Person $person, ?Opened $opened): bool
    {
        if ($opened === null) {
            return false;
        }
        // Opened before there was a second factor: it has to be shown.
        if (!$opened->factor && StaffStanding::of($person)->hasSecondFactor) {
            return false;
        }

        return $opened->way === CredentialWay::RoomPass
            ? $this->passStands($opened->id)
            : StandsBy::holds($request, $person, $opened);
    }

    private function passStands(string $id): bool
    {
        $pass = $this->snapshots->find(Records\RoomPass::class, $id);
        $section = $pass === null ? null : $this->snapshots->find(Records\Section::class, $pass->sectionId());
        $school = $section === null ? null : $this->snapshots->find(Records\School::class, $section->schoolId());

        return $pass !== null &&
            $section !== null &&
            $school !== null &&
            RoomPasses::shut($pass, $section, $school, $this->kit->now(), SchoolDay::clock($school->id)) === null;
    }
}
