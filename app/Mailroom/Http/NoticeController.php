<?php

declare(strict_types=1);

namespace App\Mailroom\Http;

use App\Mailroom\Http\Wishes\NoticeWish;
use App\Mailroom\Http\Wishes\WorkLineWish;
use App\Mailroom\Http\Wishes\WorkWish;
use App\Mailroom\NoticeDesk;
use App\Mailroom\Views\NoticePage;
use App\Mailroom\Views\NoticeReaders;
use App\Mailroom\Views\WorkSheet;
use App\Models\Person;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Vantrel\Core\Mailroom\WorkLine;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Notice;

/** Notices, dates and work of a section. */
final readonly class NoticeController
{
    public function __construct(private NoticeDesk $desk) {}

    #[Answers(NoticePage::class, 'What a section says to students and families, newest first')]
    public function index(Section $section): NoticePage
    {
        return $this->page($section, '');
    }

    #[Answers(NoticePage::class, 'Write a notice, a date or work')]
    #[Takes(NoticeWish::class)]
    public function store(Section $section, Request $request): NoticePage
    {
        $wish = Wishes::of(NoticeWish::class, $request)->wanted();

        return $this->page(
            $section,
            $this->desk->publish($wish, $section->school_id, $section->id, Person::signedIn($request)),
        );
    }

    #[Answers(NoticePage::class, 'Give work in one line: what it is, then the day it is due')]
    #[Takes(WorkLineWish::class)]
    public function line(Section $section, Request $request): NoticePage
    {
        $wish = WorkLine::read(Wishes::of(WorkLineWish::class, $request)->text, SchoolDay::today($section->school_id));
        $this->desk->publish($wish, $section->school_id, $section->id, Person::signedIn($request));

        return $this->page($section, "“{$wish->text->title}” is due " . Words::day((string) $wish->day) . '.');
    }

    #[Answers(NoticePage::class, 'Change it')]
    #[Takes(NoticeWish::class)]
    public function update(Section $section, string $notice, Request $request): NoticePage
    {
        $wish = Wishes::of(NoticeWish::class, $request);
        $found = $this->find($section, $notice);

        return $this->page(
            $section,
            $this->desk->change($found, $wish->wanted(), $wish->version, Person::signedIn($request)),
        );
    }

    #[Answers(NoticePage::class, 'Withdraw it')]
    public function destroy(Section $section, string $notice, Request $request): NoticePage
    {
        return $this->page($section, $this->desk->withdraw($this->find($section, $notice), Person::signedIn($request)));
    }

    #[Answers(NoticeReaders::class, 'Who has seen it, by name')]
    public function readers(Section $section, string $notice): NoticeReaders
    {
        return new NoticeReaders($this->desk->readers($this->find($section, $notice)));
    }

    #[Answers(WorkSheet::class, 'Who has handed work in')]
    public function work(Section $section, string $notice): WorkSheet
    {
        return $this->desk->work($this->find($section, $notice));
    }

    #[Answers(NoticePage::class, 'Say who has handed work in')]
    #[Takes(WorkWish::class)]
    public function goThrough(Section $section, string $notice, Request $request): NoticePage
    {
        $wish = Wishes::of(WorkWish::class, $request);

        return $this->page(
            $section,
            $this->desk->goThrough($this->find($section, $notice), $wish->states, Person::signedIn($request)),
        );
    }

    private function page(Section $section, string $said): NoticePage
    {
        return $this->desk->page($section->school_id, $section->id, $said);
    }

    private function find(Section $section, string $id): Notice
    {
        return $this->desk->find($id, $section->school_id, $section->id);
    }
}
