<?php

declare(strict_types=1);

namespace App\PrintRoom\Http;

use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\PrintRoom\CardPrinter;
use App\PrintRoom\Http\Wishes\CardsWish;
use App\PrintRoom\Http\Wishes\PaperWish;
use App\PrintRoom\Http\Wishes\SectionCardsWish;
use App\PrintRoom\Http\Wishes\SheetWish;
use App\PrintRoom\Views\SheetPreview;
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

    #[Answers('file', 'Print login cards for sections of a school')]
    #[Takes(CardsWish::class, PaperWish::class)]
    public function store(School $school, Request $request, CardPrinter $printer): Response
    {
        $wish = Wishes::of(CardsWish::class, $request);

        return $this->pdf($school, $wish->sectionIds, $wish, $request, $printer);
    }

    #[Answers('file', 'Print login cards for one section')]
    #[Takes(SectionCardsWish::class, PaperWish::class)]
    public function section(Section $section, Request $request, CardPrinter $printer): Response
    {
        $wish = Wishes::of(SectionCardsWish::class, $request);
        // An assistant prints; making earlier cards stop is for those who teach the section.
        if ($wish->lost) {
            Gate::authorize('place_students', $section);
        }

        return $this->pdf(School::query()->findOrFail($section->school_id), [$section->id], $wish, $request, $printer);
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

    /** @param  list<string>  $sections */
    private function pdf(
        School $school,
        array $sections,
        CardsWish|SectionCardsWish $wish,
        Request $request,
        CardPrinter $printer,
    ): Response {
        $actor = Person::signedIn($request);
        $paper = Wishes::of(PaperWish::class, $request)->paper();

        return self::answer(
            $printer->print($school, $sections, $wish->personIds, $paper, $wish->lost, $wish->shorten, $actor),
            'login-cards.pdf',
        );
    }
}
