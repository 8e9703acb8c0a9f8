<?php

declare(strict_types=1);

namespace App\PrintRoom\Http;

use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\PrintRoom\Http\Wishes\SectionsWish;
use App\PrintRoom\Http\Wishes\WallWish;
use App\PrintRoom\WallPrinter;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Codes of sections to hang up and to hand out: for a school, or for one section by those who may use its code. */
final readonly class WallController
{
    public function __construct(private WallPrinter $printer) {}

    #[Answers('file', 'Posters, slips or handouts with the codes of sections')]
    #[Takes(SectionsWish::class, WallWish::class)]
    public function school(School $school, Request $request): Response
    {
        return $this->pdf($school, Wishes::of(SectionsWish::class, $request)->sectionIds, $request);
    }

    #[Answers('file', 'A poster, slips or a handout with the code of a section')]
    #[Takes(WallWish::class)]
    public function section(Section $section, Request $request): Response
    {
        return $this->pdf(School::query()->findOrFail($section->school_id), [$section->id], $request);
    }

    /** @param  list<string>  $sectionIds */
    private function pdf(School $school, array $sectionIds, Request $request): Response
    {
        $wish = Wishes::of(WallWish::class, $request);

        return response(
            $this->printer->print(
                $school,
                $sectionIds,
                $wish->kind,
                $wish->paper,
                $wish->languages,
                $wish->copies,
                $wish->without,
            ),
            200,
            [
                'Content-Type' => 'application/pdf',
                'Content-Disposition' => "inline; filename=\"{$wish->kind->value}.pdf\"",
                'Cache-Control' => 'no-store, private',
            ],
        );
    }
}
