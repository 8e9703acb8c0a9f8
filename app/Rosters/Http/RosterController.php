<?php

declare(strict_types=1);

namespace App\Rosters\Http;

use App\Models\Coordinators;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\FileOut;
use App\Platform\PlannerKit;
use App\Platform\SheetFormat;
use App\Platform\SheetOut;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Rosters\Http\Wishes\SchoolRosterWish;
use App\Rosters\Http\Wishes\SectionRosterWish;
use App\Rosters\OneRosterExport;
use App\Rosters\Roster;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** Rosters as files, to look at, to hand on, or to edit and bring in again. */
final class RosterController
{
    public function __construct(private readonly PlannerKit $kit) {}

    #[Answers('file', 'The roster of a section, as of any day')]
    #[Takes(SectionRosterWish::class)]
    public function section(Section $section, Request $request): BinaryFileResponse
    {
        $wish = Wishes::of(SectionRosterWish::class, $request);
        $reader = Person::signedIn($request);
        $school = School::query()->findOrFail($section->school_id);
        // Personal addresses are for coordinators; a teacher's sheet does not hold them.
        $addresses = Coordinators::has($reader, $section->school_id);
        $asOf = $wish->asOf !== null ? $wish->asOf : $this->kit->today($school);
        $format = $wish->format;
        $path = FileOut::scratch();
        SheetOut::write($format, $path, [
            $section->name => [Roster::headings($addresses), Roster::ofSection($section, $asOf, $addresses)],
        ]);

        return FileOut::response($path, "Roster $section->name $asOf.$format->value", $format->contentType());
    }

    #[Answers('file', 'All students of a school, or the school as a OneRoster 1.2 export')]
    #[Takes(SchoolRosterWish::class)]
    public function school(School $school, Request $request): BinaryFileResponse
    {
        $wish = Wishes::of(SchoolRosterWish::class, $request);
        $path = FileOut::scratch();
        $today = $this->kit->today($school);
        if ($wish->format === 'oneroster') {
            $changes = $wish->since === null ? '' : " changes since $wish->since";
            $wish->since === null
                ? OneRosterExport::write($school, $path)
                : OneRosterExport::writeChanges($school, $wish->since, $path);

            return FileOut::response($path, "$school->code $today OneRoster$changes.zip", 'application/zip');
        }
        $format = SheetFormat::from($wish->format);
        SheetOut::write($format, $path, ['Roll' => [Roster::headings(true), Roster::ofSchool($school, $today)]]);

        return FileOut::response($path, "Roll $school->code $today.$format->value", $format->contentType());
    }
}
