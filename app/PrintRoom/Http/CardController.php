<?php

declare(strict_types=1);

namespace App\PrintRoom\Http;

use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\PrintRoom\CardJob;
use App\PrintRoom\CardPrinter;
use App\PrintRoom\Http\Wishes\CardsWish;
use App\PrintRoom\Http\Wishes\PaperWish;
use App\PrintRoom\Http\Wishes\SectionCardsWish;
use App\PrintRoom\Http\Wishes\SheetWish;
use App\PrintRoom\Http\Wishes\WhomWish;
use App\PrintRoom\PrintRuns;
use App\PrintRoom\Views\PrintView;
use App\PrintRoom\Views\SheetPreview;
use App\PrintRoom\Whom;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;

/** Login cards as a PDF: for sections of a school, or for one section by those who teach it. */
final class CardController
{
    #[Answers(SheetPreview::class, 'How many sheets so many cards come to, and what lies where on the first')]
    #[Takes(SheetWish::class, PaperWish::class)]
    public function sheet(School $school, Request $request): SheetPreview
    {
        return SheetPreview::of(
            Wishes::of(PaperWish::class, $request)->paper(),
            Wishes::of(SheetWish::class, $request)->cards,
        );
    }

    #[Answers(PrintView::class, 'Print login cards for sections or students of a school')]
    #[Takes(WhomWish::class, CardsWish::class, PaperWish::class)]
    public function store(School $school, Request $request, PrintRuns $runs): PrintView
    {
        return PrintView::of(
            $runs->begin(
                $school,
                null,
                Person::signedIn($request),
                self::job($request, Wishes::of(WhomWish::class, $request)->whom()),
            ),
        );
    }

    #[Answers(PrintView::class, 'Print login cards for one section')]
    #[Takes(SectionCardsWish::class, CardsWish::class, PaperWish::class)]
    public function section(Section $section, Request $request, PrintRuns $runs): PrintView
    {
        $whom = new Whom([$section->id], Wishes::of(SectionCardsWish::class, $request)->personIds);
        $job = self::job($request, $whom);
        // An assistant prints; making earlier cards stop is for those who teach the section.
        if ($job->lost) {
            Gate::authorize('place_students', $section);
        }
        $school = School::query()->findOrFail($section->school_id);

        return PrintView::of($runs->begin($school, $section, Person::signedIn($request), $job));
    }

    #[Answers('file', 'A page that shows where cards will stand, with a ruler of 100 mm')]
    #[Takes(PaperWish::class)]
    public function test(School $school, Request $request, CardPrinter $printer): Response
    {
        $paper = Wishes::of(PaperWish::class, $request)->paper();

        return self::answer($printer->test($school, $paper), 'test-page.pdf');
    }

    private static function answer(string $pdf, string $name): Response
    {
        return response($pdf, 200, [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => "inline; filename=\"$name\"",
        ]);
    }

    private static function job(Request $request, Whom $whom): CardJob
    {
        $wish = Wishes::of(CardsWish::class, $request);

        return new CardJob($whom, Wishes::of(PaperWish::class, $request)->paper(), $wish->lost, $wish->shorten);
    }
}
