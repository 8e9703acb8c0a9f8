<?php

declare(strict_types=1);

namespace App\Door\Http;

use App\Door\Http\Wishes\StudentInviteWish;
use App\Door\StudentInviteDesk;
use App\Door\Views\StudentInviteOutlook;
use App\Door\Views\StudentInvitePage;
use App\Models\Person;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\TryCounter;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Vantrel\Core\Accounts\Limit;

/** Students and families asked into a section by mail. */
final readonly class StudentInviteController
{
    public function __construct(private StudentInviteDesk $desk, private TryCounter $tries) {}

    #[Answers(StudentInvitePage::class, 'Who has been asked into a section by mail, newest first')]
    public function index(Section $section, Request $request): StudentInvitePage
    {
        return $this->desk->page($section, Person::signedIn($request), '');
    }

    #[Answers(StudentInviteOutlook::class, 'To whom links would go, and who is left out and why')]
    #[Takes(StudentInviteWish::class)]
    public function plan(Section $section, Request $request): StudentInviteOutlook
    {
        $wish = Wishes::of(StudentInviteWish::class, $request);
        $this->count($request);

        return $this->desk->outlook($section, $wish->who, $wish->family, $wish->language, Person::signedIn($request));
    }

    #[Answers(StudentInvitePage::class, 'Send them')]
    #[Takes(StudentInviteWish::class)]
    public function store(Section $section, Request $request): StudentInvitePage
    {
        $wish = Wishes::of(StudentInviteWish::class, $request);
        $this->count($request);
        $actor = Person::signedIn($request);
        $said = $this->desk->send($section, $wish->who, $wish->family, $wish->language, (string) $wish->seen, $actor);

        return $this->desk->page($section, $actor, $said);
    }

    #[Answers(StudentInvitePage::class, 'Send a link again; the old one stops working')]
    public function again(Section $section, string $invited, Request $request): StudentInvitePage
    {
        $this->count($request);
        $actor = Person::signedIn($request);

        return $this->desk->page($section, $actor, $this->desk->again($section, $invited, $actor));
    }

    #[Answers(StudentInvitePage::class, 'Withdraw a link')]
    public function destroy(Section $section, string $invited, Request $request): StudentInvitePage
    {
        $actor = Person::signedIn($request);

        return $this->desk->page($section, $actor, $this->desk->withdraw($section, $invited, $actor));
    }

    private function count(Request $request): void
    {
        $limit = [Limit::InviteAccount, Person::signedIn($request)->id];
        $this->tries->take($limit);
    }
}
