<?php

declare(strict_types=1);

namespace App\Settings\Http;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\InstallationDomains;
use App\Models\Person;
use App\Models\School;
use App\Models\SchoolYear;
use App\Platform\Answers;
use App\Platform\GradeChoice;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\TryCounter;
use App\Platform\Wishes;
use App\Settings\Http\Wishes\PatternWish;
use App\Settings\Http\Wishes\SchoolYearWish;
use App\Settings\Http\Wishes\SettingsWish;
use App\Settings\Views\GradeWay;
use App\Settings\Views\NamesExample;
use App\Settings\Views\Settings;
use App\Settings\Views\YearLine;
use DateTimeZone;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Calendar\Span;
use Vantrel\Core\Codes\CodeChances;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records;
use Vantrel\Core\Records\YearState;
use Vantrel\Core\Sections\SectionNames;
use Vantrel\Core\Settings\SchoolSettings;
use Vantrel\Core\Settings\SchoolYears;
use Vantrel\Core\Values\GradeLevel;

/** What a school decides for itself, and its years. */
final class SettingsController
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
        private readonly InstallationDomains $domains,
    ) {}

    #[Answers(Settings::class, 'Settings of a school, with its years')]
    public function show(School $school): Settings
    {
        $school = School::query()->findOrFail($school->id);
        $policy = SignInPolicy::read($school->sign_in_policy);
        $grades = [];
        for ($g = $school->lowest_grade; $g <= $school->highest_grade; $g++) {
            $grades[] = new GradeWay(
                GradeLevel::of($g)->code(),
                GradeLevel::of($g)->short(),
                $policy->way(GradeLevel::of($g)->code()),
            );
        }
        $live = DB::table('join_codes')->where('state', 'open')->count();
        $chances = new CodeChances($live, TryCounter::codesADay());

        return new Settings(
            $school->version,
            $school->name,
            GradeLevel::of($school->lowest_grade)->code(),
            GradeLevel::of($school->highest_grade)->code(),
            $school->mail_domains,
            $school->time_zone,
            $school->country,
            $school->naming_pattern,
            $grades,
            $school->stay_days_shared,
            $school->stay_days_own,
            (bool) $school->outside_staff,
            $school->newcomer_check,
            (bool) $school->newcomer_mail,
            $school->under_13,
            $school->second_factor,
            NameShown::for(null, $school->name_shown),
            $school->user_names_from,
            $school->day_opens,
            $school->day_closes,
            $school->guardians_in,
            (bool) $school->remind_guardians,
            $school->quiet_from,
            $school->quiet_to,
            array_values(
                DB::table('school_years as y')
                    ->where('y.school_id', $school->id)
                    ->orderByDesc('y.begins_on')
                    ->selectRaw('y.*, (select count(*) from sections s where s.school_year_id = y.id) n')
                    ->get()
                    ->map(
                        fn(object $y): YearLine => new YearLine(
                            $y->id,
                            $y->name,
                            $y->begins_on,
                            Span::last($y->ends_on),
                            YearState::from($y->state),
                            (int) $y->n,
                        ),
                    )
                    ->all(),
            ),
            $live,
            TryCounter::codesADay(),
            $chances->guessPerDay($chances->payloadLength()),
            $chances->payloadLength(),
            $school->keep_askings_days,
            $school->keep_lists_days,
            $school->keep_messages_days,
            $school->keep_ledger_days,
            (int) config('logging.channels.daily.days'),
            DateTimeZone::listIdentifiers(),
            GradeChoice::between(GradeLevel::LOWEST, GradeLevel::HIGHEST),
        );
    }

    #[Answers(Settings::class, 'Change settings of a school')]
    #[Takes(SettingsWish::class)]
    public function update(School $school, Request $request): Settings
    {
        $wish = Wishes::of(SettingsWish::class, $request);
        $columns = $wish->columns();
        $row = $this->snapshots->find(Records\School::class, $school->id) ?? throw new NotFoundHttpException();
        if ($wish->version !== null && $wish->version !== $row->version) {
            throw new StalePlan(
                ['the settings'],
                'Somebody has changed the settings since you looked at them. Nothing was kept; look again, then keep ' .
                    'yours.',
            );
        }
        if ($wish->mailDomains !== null) {
            $this->domains->mustBeOurs($wish->mailDomains, Person::signedIn($request));
        }
        $taught = SchoolSettings::taught($row, $columns);
        $outside =
            $taught === null
                ? 0
                : DB::table('people')
                    ->where('school_id', $school->id)
                    ->where('kind', 'student')
                    ->where('state', 'active')
                    ->whereNotNull('grade')
                    ->whereNotIn('grade', $taught)
                    ->count();
        $this->apply(
            SchoolSettings::change($row, $columns, DateTimeZone::listIdentifiers(), $outside),
            $school->id,
            $request,
            Action::Settings,
        );
        SchoolDay::forget();

        return $this->show($school);
    }

    #[Answers(NamesExample::class, 'What sections would be called by a pattern')]
    #[Takes(PatternWish::class)]
    public function names(School $school, Request $request): NamesExample
    {
        $wish = Wishes::of(PatternWish::class, $request);
        $pattern = SectionNames::check($wish->pattern);
        $year = SchoolYear::query()->where('school_id', $school->id)->where('state', 'current')->value('name');
        $grade = GradeLevel::of(intdiv($school->lowest_grade + $school->highest_grade, 2))->short();

        return new NamesExample(
            array_map(
                fn(string $group): string => SectionNames::fill($pattern, [
                    'subject' => 'Marine science',
                    'grade' => $grade,
                    'group' => $group,
                    'period' => '3',
                    'year' => is_string($year) ? $year : '',
                ]),
                ['A', 'B'],
            ),
        );
    }

    #[Answers(Settings::class, 'Plan a school year')]
    #[Takes(SchoolYearWish::class)]
    public function planYear(School $school, Request $request): Settings
    {
        $wish = Wishes::of(SchoolYearWish::class, $request);

        $this->apply(
            SchoolYears::plan(
                $school->id,
                trim($wish->name),
                $wish->beginsOn,
                Span::after($wish->lastOn),
                $this->years($school->id),
                $this->kit->ids($this->kit->seed()),
            ),
            $school->id,
            $request,
            Action::Year,
        );

        return $this->show($school);
    }

    #[Answers(Settings::class, 'Change name or dates of a school year')]
    #[Takes(SchoolYearWish::class)]
    public function editYear(SchoolYear $year, Request $request): Settings
    {
        $wish = Wishes::of(SchoolYearWish::class, $request);

        $row = $this->snapshots->find(Records\SchoolYear::class, $year->id) ?? throw new NotFoundHttpException();
        $this->apply(
            SchoolYears::edit(
                $row,
                trim($wish->name),
                $wish->beginsOn,
                Span::after($wish->lastOn),
                $this->years($year->school_id),
            ),
            $year->school_id,
            $request,
            Action::Year,
        );

        return $this->show(School::query()->findOrFail($year->school_id));
    }

    /** @return list<Records\SchoolYear> */
    private function years(string $schoolId): array
    {
        return $this->snapshots->list(
            Records\SchoolYear::class,
            fn(Builder $q): Builder => $q->where('school_id', $schoolId),
        );
    }

    private function apply(Plan $plan, string $schoolId, Request $request, Action $action): void
    {
        $actor = Person::signedIn($request);
        if (!$plan->isEmpty()) {
            $this->ledger->apply($plan, $schoolId, $actor, $action);
        }
    }
}
