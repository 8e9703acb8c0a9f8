<?php

declare(strict_types=1);

namespace App\Mailroom\Http;

use App\Mailroom\Http\Wishes\NoticeWish;
use App\Mailroom\NoticeDesk;
use App\Mailroom\Views\NoticePage;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;

/** Notices and dates of a whole school. */
final readonly class SchoolNoticeController
{
    public function __construct(private NoticeDesk $desk) {}

    #[Answers(NoticePage::class, 'What a school says to all students and families, newest first')]
    public function index(School $school): NoticePage
    {
        return $this->desk->page($school->id, null);
    }

    #[Answers(NoticePage::class, 'Write a notice or a date for the whole school')]
    #[Takes(NoticeWish::class)]
    public function store(School $school, Request $request): NoticePage
    {
        $wish = Wishes::of(NoticeWish::class, $request)->wanted();
        $said = $this->desk->publish($wish, $school->id, null, Person::signedIn($request));

        return $this->desk->page($school->id, null, $said);
    }

    #[Answers(NoticePage::class, 'Change it')]
    #[Takes(NoticeWish::class)]
    public function update(School $school, string $notice, Request $request): NoticePage
    {
        $wish = Wishes::of(NoticeWish::class, $request);
        $found = $this->desk->find($notice, $school->id, null);
        $said = $this->desk->change($found, $wish->wanted(), $wish->version, Person::signedIn($request));

        return $this->desk->page($school->id, null, $said);
    }

    #[Answers(NoticePage::class, 'Withdraw it')]
    public function destroy(School $school, string $notice, Request $request): NoticePage
    {
        $found = $this->desk->find($notice, $school->id, null);

        return $this->desk->page($school->id, null, $this->desk->withdraw($found, Person::signedIn($request)));
    }
}
