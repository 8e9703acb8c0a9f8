<?php

declare(strict_types=1);

namespace App\PrintRoom\Http;

use App\Ledger\Ledger;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\PrintRoom\Http\Wishes\LettersWish;
use App\PrintRoom\Http\Wishes\SampleWish;
use App\PrintRoom\Http\Wishes\SlipWish;
use App\PrintRoom\Http\Wishes\WhomWish;
use App\PrintRoom\Http\Wishes\WordingWish;
use App\PrintRoom\LetterPrinter;
use App\PrintRoom\LetterTexts;
use App\PrintRoom\PrintRuns;
use App\PrintRoom\SampleLetter;
use App\PrintRoom\Slips;
use App\PrintRoom\Views\LanguageCount;
use App\PrintRoom\Views\LetterCounts;
use App\PrintRoom\Views\PrintView;
use App\PrintRoom\Views\SlipList;
use App\PrintRoom\Views\TickedSlip;
use App\PrintRoom\Views\WordingView;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Values\Language;

/** Letters to families: printed, their words edited, their slips ticked off. */
final class LetterController
{
    #[Answers(PrintView::class, 'Print a letter for each student of sections, or for students')]
    #[Takes(WhomWish::class, LettersWish::class)]
    public function store(School $school, Request $request, PrintRuns $runs): PrintView
    {
        $job = Wishes::of(LettersWish::class, $request)->job(Wishes::of(WhomWish::class, $request)->whom());

        return PrintView::of($runs->begin($school, null, Person::signedIn($request), $job));
    }

    #[Answers(LetterCounts::class, 'How many letters there would be in each language')]
    #[Takes(WhomWish::class, LettersWish::class)]
    public function counts(School $school, Request $request, LetterPrinter $printer, LetterTexts $texts): LetterCounts
    {
        $job = Wishes::of(LettersWish::class, $request)->job(Wishes::of(WhomWish::class, $request)->whom());
        $counts = $printer->count($school, $job);
        $lacking = array_intersect_key($texts->of($school, $job->kind)->lacking(), $counts);

        return new LetterCounts(
            array_sum($counts),
            array_map(
                fn(string $tag, int $letters): LanguageCount => new LanguageCount($tag, self::named($tag), $letters),
                array_keys($counts),
                $counts,
            ),
            array_map(self::named(...), array_keys($lacking)),
        );
    }

    #[Answers(WordingView::class, 'The words of a letter in one language')]
    #[Takes(SampleWish::class)]
    public function wording(School $school, Request $request, LetterTexts $texts): WordingView
    {
        $wish = Wishes::of(SampleWish::class, $request);

        return WordingView::of($texts->of($school, $wish->kind), $wish->language);
    }

    #[Answers(WordingView::class, 'Write the words of a letter in one language')]
    #[Takes(WordingWish::class)]
    public function write(
        School $school,
        Request $request,
        LetterTexts $texts,
        Ledger $ledger,
        PlannerKit $kit,
    ): WordingView {
        $wish = Wishes::of(WordingWish::class, $request);
        $plan = $texts
            ->of($school, $wish->kind)
            ->write(
                $school->id,
                $wish->language,
                array_map(strval(...), $wish->texts),
                $texts->row($school, $wish->kind, $wish->language),
                $kit->ids($kit->seed()),
            );
        if (!$plan->isEmpty()) {
            $ledger->apply($plan, $school->id, Person::signedIn($request), Action::Wording);
        }

        return WordingView::of($texts->of($school, $wish->kind), $wish->language);
    }

    #[Answers('file', 'A page with made-up names, as it would be printed')]
    #[Takes(SampleWish::class)]
    public function sample(School $school, Request $request, SampleLetter $sample): Response
    {
        $wish = Wishes::of(SampleWish::class, $request);

        return response($sample->print($school, $wish->kind, $wish->language, $wish->paper), 200, [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => 'inline; filename="sample.pdf"',
        ]);
    }

    #[Answers(SlipList::class, 'Which slips are out, and which have come back')]
    public function slips(School $school, Slips $slips): SlipList
    {
        return $slips->list($school);
    }

    #[Answers(TickedSlip::class, 'Tick off a slip that came back')]
    #[Takes(SlipWish::class)]
    public function tickOff(School $school, Request $request, Slips $slips): TickedSlip
    {
        return $slips->tickOff($school, Wishes::of(SlipWish::class, $request)->slip, Person::signedIn($request));
    }

    private static function named(string $tag): string
    {
        return Language::read($tag)?->name() ?? $tag;
    }
}
