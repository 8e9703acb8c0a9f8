<?php

declare(strict_types=1);

namespace App\Desk\Http;

use App\Desk\Coverage;
use App\Desk\Http\Wishes\CoverageSheetWish;
use App\Desk\Http\Wishes\CoverageWish;
use App\Desk\Views\CoverageLine;
use App\Desk\Views\CoveragePage;
use App\Desk\Views\CoverageWeek;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\FileOut;
use App\Platform\SchoolDay;
use App\Platform\SheetFormat;
use App\Platform\SheetOut;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

final class CoverageController
{
    public function __construct(private readonly Coverage $coverage) {}

    #[
        Answers(
            CoveragePage::class,
            'How many have signed in, have a card, have a guardian connected, and how that went',
        ),
    ]
    #[Takes(CoverageWish::class)]
    public function show(School $school, Request $request): CoveragePage
    {
        $wish = Wishes::of(CoverageWish::class, $request);

        return new CoveragePage($this->coverage->now($school), $this->coverage->weeks($school, $wish->part));
    }

    #[Answers('file', 'The same as a sheet: how it stands, and the weeks of the whole school')]
    #[Takes(CoverageSheetWish::class)]
    public function sheet(School $school, Request $request): BinaryFileResponse
    {
        $format = Wishes::of(CoverageSheetWish::class, $request)->format;
        $path = FileOut::scratch();
        $counts = ['Students', 'Signed in', 'With a card', 'With a guardian connected'];
        $of = fn(CoverageLine|CoverageWeek $c): array => array_map(strval(...), [
            $c->students,
            $c->signedIn,
            $c->carded,
            $c->connected,
        ]);
        $sheets = [
            'Coverage' => [
                ['Of', 'What', ...$counts],
                array_map(
                    fn(CoverageLine $l): array => [$l->name, $l->kind, ...$of($l)],
                    $this->coverage->now($school),
                ),
            ],
        ];
        // A text file is one table.
        if ($format !== SheetFormat::Csv) {
            $sheets['Weeks'] = [
                ['Week of', ...$counts],
                array_map(fn(CoverageWeek $w): array => [$w->week, ...$of($w)], $this->coverage->weeks($school)),
            ];
        }
        SheetOut::write($format, $path, $sheets);
        $day = SchoolDay::today($school->id);

        return FileOut::response($path, "Coverage $school->code $day.$format->value", $format->contentType());
    }
}
