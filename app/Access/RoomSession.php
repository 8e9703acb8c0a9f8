<?php

declare(strict_types=1);

namespace App\Access;

use App\Ledger\Snapshots;
use App\Platform\CoreKit;
use App\Platform\SchoolDay;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\Response;
use Vantrel\Core\Placement\RoomPasses;
use Vantrel\Core\Plan\Entity;

/** A student who came in by a room pass stays in only while the pass works: it is looked at with every request. */
final class RoomSession
{
    /** In the session: the id of the pass. */
    public const KEY = 'room_pass';

    public function __construct(private readonly Snapshots $snapshots, private readonly CoreKit $kit)
    {
    }

    public function handle(Request $request, Closure $next): Response
    {
        $id = $request->hasSession() ? $request->session()->get(self::KEY) : null;
        if (is_string($id) && $this->shut($id)) {
            Auth::logout();
            $request->session()->invalidate();
        }

        return $next($request);
    }

    private function shut(string $id): bool
    {
        $pass = $this->snapshots->find(Entity::RoomPass, $id);
        $section = $pass === null ? null : $this->snapshots->find(Entity::Section, $pass->text('section_id'));
        $school = $section === null ? null : $this->snapshots->find(Entity::School, $section->text('school_id'));

        return $pass === null || $section === null || $school === null || RoomPasses::shut($pass, $section, $school, $this->kit->now(), SchoolDay::clock($school->id)) !== null;
    }
}
