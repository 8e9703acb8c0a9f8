<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Ledger\Snapshots;
use App\Models\Person;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
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
    public function __construct(
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
        private readonly SecondFactors $secondFactors,
    ) {}

    public function handle(Request $request, Closure $next): Response
    {
        $guard = Auth::guard();
        $person = $request->user();
        $bySession =
            $request->hasSession() &&
            $person instanceof Person &&
            $request->session()->get($guard->getName()) === $person->id;
        if ($bySession && !$this->stands($person, Opened::of($request->session()))) {
            Auth::logout();
            $request->session()->invalidate();
        }

        return $next($request);
    }

    private function stands(Person $person, ?Opened $opened): bool
    {
        if ($opened === null) {
            return false;
        }
        // Opened before there was a second factor: it has to be shown.
        if ($person->kind === 'staff' && !$opened->factor && $this->secondFactors->has($person)) {
            return false;
        }

        return match ($opened->way) {
            CredentialWay::Password, CredentialWay::Passphrase => $this->secretStands($person, $opened),
            CredentialWay::Badge => DB::selectOne(
                'SELECT 1 FROM badges b JOIN sign_ins s ON s.id = b.sign_in_id WHERE b.id = ? AND b.state = ' .
                    "'live' AND s.person_id = ?",
                [$opened->id, $person->id],
            ) !== null,
            CredentialWay::SignOn => DB::selectOne(
                "SELECT 1 FROM identities WHERE id = ? AND state = 'live' AND person_id = ?",
                [$opened->id, $person->id],
            ) !== null,
            CredentialWay::Passkey => DB::selectOne('SELECT 1 FROM passkeys WHERE id = ? AND person_id = ?', [
                $opened->id,
                $person->id,
            ]) !== null,
            CredentialWay::RoomPass => $this->passStands($opened->id),
        };
    }

    private function secretStands(Person $person, Opened $opened): bool
    {
        $row = DB::selectOne("SELECT {$opened->way->value} AS secret FROM sign_ins WHERE id = ? AND person_id = ?", [
            $opened->id,
            $person->id,
        ]);

        return $row !== null && $row->secret !== null && hash_equals(Opened::stampOf($row->secret), $opened->stamp);
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
