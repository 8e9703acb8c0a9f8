<?php

declare(strict_types=1);

namespace App\Door\Http;

use App\Door\Http\Wishes\RoomPassWish;
use App\Door\RoomPoster;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Sections\SectionDesk;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Vantrel\Core\Accounts\OwnSecrets;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Door\RoomPasses;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records;
use Vantrel\Core\Records\PassHours;

/** The room pass of a section: made as a poster to print, ended, and the pictures of its children. */
final class RoomPassController
{
    public function __construct(private readonly SectionDesk $desk, private readonly PlannerKit $kit) {}

    #[Answers('file', 'Make a room pass, as a poster to print; one the section has stops working')]
    #[Takes(RoomPassWish::class)]
    public function store(Section $section, Request $request): Response
    {
        $wish = Wishes::of(RoomPassWish::class, $request);
        $seed = $this->kit->seed();
        $token = Token::draw($this->kit->random("$seed room pass"));
        $until = $wish->until;
        $plan = RoomPasses::make(
            $this->desk->row($section),
            $this->desk->of(Records\RoomPass::class, $section),
            $token,
            $wish->hours === PassHours::School,
            $wish->pictures,
            $until === null ? null : SchoolDay::instant($section->school_id, $until),
            $this->kit->ids($seed),
            $this->kit->now(),
        );
        $school = School::query()->findOrFail($section->school_id);
        $hours =
            $wish->hours === PassHours::School
                ? "Works on school devices from {$school->day_opens} to {$school->day_closes}"
                : 'Works at any hour';
        $hours .=
            $until === null
                ? ', until it is ended.'
                : ', until ' . Words::day(substr($until, 0, 10)) . ' at ' . substr($until, 11) . '.';
        $pdf = RoomPoster::of(
            $section->name,
            $school->name,
            rtrim((string) config('app.url'), '/') . '/room#' . $token->plain,
            $hours,
            $wish->pictures,
            $wish->paper === 'letter',
        );
        $this->desk->apply($plan, $section, $request, Action::RoomPass);

        return response($pdf, 200, [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => 'inline; filename="room-pass.pdf"',
        ]);
    }

    #[Answers(null, 'End the room pass: it stops at once, and whoever came in by it is signed out')]
    public function destroy(Section $section, Request $request): Response
    {
        $this->desk->apply(
            RoomPasses::end(
                $this->desk->row($section),
                $this->desk->of(Records\RoomPass::class, $section),
                $this->kit->now(),
            ),
            $section,
            $request,
            Action::RoomPass,
        );

        return response()->noContent();
    }

    #[Answers(null, 'Forget the three pictures of a child, who then chooses again')]
    public function forgetPictures(Section $section, Person $person, Request $request): Response
    {
        $plan = OwnSecrets::pictures($this->desk->memberOf($section, $person), null);
        if (!$plan->isEmpty()) {
            $this->desk->apply($plan, $section, $request, Action::Pictures);
        }

        return response()->noContent();
    }
}
