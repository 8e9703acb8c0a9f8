<?php

declare(strict_types=1);

namespace App\PrintRoom\Http;

use App\Models\Person;
use App\Models\PrintRun;
use App\Models\School;
use App\Platform\Answers;
use App\PrintRoom\PrintRuns;
use App\PrintRoom\Views\PrintList;
use App\PrintRoom\Views\PrintView;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Prints of the last day: whoever made one sees it on its way, opens it, and takes it away. */
final readonly class PrintController
{
    public function __construct(private PrintRuns $runs) {}

    #[Answers(PrintList::class, 'What you printed in the last day at a school')]
    public function index(School $school, Request $request): PrintList
    {
        return new PrintList(array_map(PrintView::of(...), $this->runs->of($school, Person::signedIn($request))));
    }

    #[Answers(PrintView::class, 'How far a print is')]
    public function show(PrintRun $print): PrintView
    {
        return PrintView::of($print);
    }

    #[Answers('file', 'The pages of a print')]
    public function file(PrintRun $print): Response
    {
        return response($this->runs->file($print), 200, [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => 'inline; filename="print.pdf"',
            'Cache-Control' => 'no-store, private',
        ]);
    }

    #[Answers(null, 'Take a print away before its day is over')]
    public function destroy(PrintRun $print): Response
    {
        $print->delete();

        return response()->noContent();
    }
}
