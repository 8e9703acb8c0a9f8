<?php

declare(strict_types=1);

namespace App\Mailroom\Http;

use App\Mailroom\Http\Wishes\LetterFileWish;
use App\Mailroom\Http\Wishes\LetterToManyWish;
use App\Mailroom\LetterDesk;
use App\Mailroom\LetterFiles;
use App\Mailroom\LetterWhom;
use App\Mailroom\Views\LetterFile;
use App\Mailroom\Views\LetterOutlook;
use App\Mailroom\Views\MailingPage;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;

/** Letters to many: looked at first, sent now or later, stopped. */
final readonly class LetterToManyController
{
    public function __construct(private LetterDesk $desk, private LetterFiles $files) {}

    #[Answers(MailingPage::class, 'Letters to many that have been written, newest first')]
    public function index(School $school): MailingPage
    {
        return new MailingPage($this->desk->list($school), '');
    }

    #[
        Answers(
            LetterOutlook::class,
            'What a letter to many would be: to how many, in which languages, and who is left out',
        ),
    ]
    #[Takes(LetterToManyWish::class)]
    public function plan(School $school, Request $request): LetterOutlook
    {
        $wish = Wishes::of(LetterToManyWish::class, $request);

        return $this->desk->outlook(
            new LetterWhom($school, $wish->readers, null, $wish->grade, $wish->ids),
            $wish->letter(false),
            $wish->files,
            Person::signedIn($request),
        );
    }

    #[Answers(MailingPage::class, 'Send it')]
    #[Takes(LetterToManyWish::class)]
    public function store(School $school, Request $request): MailingPage
    {
        $wish = Wishes::of(LetterToManyWish::class, $request);
        $whom = new LetterWhom($school, $wish->readers, null, $wish->grade, $wish->ids);

        $said = $this->send($whom, $wish, $request);

        return new MailingPage($this->desk->list($school), $said);
    }

    #[Answers(LetterFile::class, 'A file to go with a letter: PDF, PNG or JPEG of up to 2 MB')]
    #[Takes(LetterFileWish::class)]
    public function file(School $school, Request $request): LetterFile
    {
        return $this->keep($school->id, $request);
    }

    #[Answers(LetterFile::class, 'The same for a letter to a section')]
    #[Takes(LetterFileWish::class)]
    public function fileForSection(Section $section, Request $request): LetterFile
    {
        return $this->keep($section->school_id, $request);
    }

    #[Answers(MailingPage::class, 'Stop what of it has not gone')]
    public function stop(School $school, string $mailing, Request $request): MailingPage
    {
        $said = $this->desk->stop($school, $mailing, Person::signedIn($request));

        return new MailingPage($this->desk->list($school), $said);
    }

    #[Answers(LetterOutlook::class, 'The same for a section')]
    #[Takes(LetterToManyWish::class)]
    public function planForSection(Section $section, Request $request): LetterOutlook
    {
        $wish = Wishes::of(LetterToManyWish::class, $request);

        return $this->desk->outlook(
            $this->ofSection($section, $wish),
            $wish->letter(true),
            $wish->files,
            Person::signedIn($request),
        );
    }

    #[Answers(MailingPage::class, 'Send it to a section; what one has written oneself comes back')]
    #[Takes(LetterToManyWish::class)]
    public function storeForSection(Section $section, Request $request): MailingPage
    {
        $wish = Wishes::of(LetterToManyWish::class, $request);
        $whom = $this->ofSection($section, $wish);
        $said = $this->send($whom, $wish, $request);

        return new MailingPage($this->desk->list($whom->school, Person::signedIn($request)->id), $said);
    }

    /** Of a section only those in it are written to, whoever else was named. */
    private function ofSection(Section $section, LetterToManyWish $wish): LetterWhom
    {
        return new LetterWhom(
            School::query()->findOrFail($section->school_id),
            $wish->readers,
            $section,
            null,
            $wish->ids,
        );
    }

    private function keep(string $schoolId, Request $request): LetterFile
    {
        $file = Wishes::of(LetterFileWish::class, $request)->file;

        return $this->files->keep($file, $schoolId, Person::signedIn($request));
    }

    private function send(LetterWhom $whom, LetterToManyWish $wish, Request $request): string
    {
        return $this->desk->send(
            $whom,
            $wish->letter($whom->section !== null),
            $wish->files,
            $wish->at,
            $wish->evenQuiet,
            (string) $wish->seen,
            Person::signedIn($request),
        );
    }
}
