<?php

declare(strict_types=1);

namespace App\PrintRoom\Http;

use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Takes;
use App\PrintRoom\CardPrinter;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use Vantrel\Core\PrintRoom\CardOrder;

/** Login cards as a PDF: for sections of a school, or for one section by those who teach it. */
final class CardController
{
    private const RULES = [
        'section_ids' => 'required|array|min:1|max:300',
        'section_ids.*' => 'ulid',
        'person_ids' => 'array|max:2000',
        'person_ids.*' => 'ulid',
        'layout' => 'required|in:cards-a4,cards-letter',
        'order' => 'required|in:reading,cut_stack',
        'lost' => 'boolean',
    ];

    #[Answers('file', 'Print login cards for sections of a school')]
    #[
        Takes([
            'section_ids' => 'list<string>',
            'person_ids?' => 'list<string>',
            'layout' => 'cards-a4|cards-letter',
            'order' => 'reading|cut_stack',
            'lost?' => 'bool',
        ]),
    ]
    public function store(School $school, Request $request, CardPrinter $printer): Response
    {
        $request->validate(self::RULES);
        /** @var list<string> $sections */
        $sections = $request->array('section_ids');

        return $this->pdf($school, $sections, $request, $printer);
    }

    #[Answers('file', 'Print login cards for one section')]
    #[
        Takes([
            'person_ids?' => 'list<string>',
            'layout' => 'cards-a4|cards-letter',
            'order' => 'reading|cut_stack',
            'lost?' => 'bool',
        ]),
    ]
    public function section(Section $section, Request $request, CardPrinter $printer): Response
    {
        $request->validate(array_diff_key(self::RULES, ['section_ids' => 1, 'section_ids.*' => 1]));
        // An assistant prints; making earlier cards stop is for those who teach the section.
        if ($request->boolean('lost')) {
            Gate::authorize('place_students', $section);
        }

        return $this->pdf(School::query()->findOrFail($section->school_id), [$section->id], $request, $printer);
    }

    /** @param  list<string>  $sections */
    private function pdf(School $school, array $sections, Request $request, CardPrinter $printer): Response
    {
        /** @var Person $actor */
        $actor = $request->user();
        /** @var list<string> $people */
        $people = $request->array('person_ids');
        $pdf = $printer->print(
            $school,
            $sections,
            $people,
            $request->string('layout')->value(),
            CardOrder::from($request->string('order')->value()),
            $request->boolean('lost'),
            $actor,
        );

        return response($pdf, 200, [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => 'inline; filename="login-cards.pdf"',
        ]);
    }
}
