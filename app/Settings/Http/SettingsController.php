<?php

declare(strict_types=1);

namespace App\Settings\Http;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\School;
use App\Models\SchoolYear;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Tries;
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
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
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
        private readonly CoreKit $kit,
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
                $policy->way(GradeLevel::of($g)->code())->value,
            );
        }
        $live = DB::table('join_codes')->where('state', 'open')->count();
        $chances = new CodeChances($live, Tries::codesADay());

        return new Settings(
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
            $school->day_opens,
            $school->day_closes,
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
            Tries::codesADay(),
            $chances->guessPerDay($chances->payloadLength()),
            $chances->payloadLength(),
            $school->keep_askings_days,
            $school->keep_lists_days,
            $school->keep_messages_days,
            (int) config('logging.channels.daily.days'),
            DateTimeZone::listIdentifiers(),
        );
    }

    #[Answers(Settings::class, 'Change settings of a school')]
    #[
        Takes([
            'name?' => 'string',
            'lowest_grade?' => 'string',
            'highest_grade?' => 'string',
            'mail_domains?' => 'list<string>',
            'time_zone?' => 'string',
            'country?' => 'string',
            'naming_pattern?' => 'string',
            'ways?' => 'map<string>',
            'stay_days_shared?' => 'int',
            'stay_days_own?' => 'int',
            'outside_staff?' => 'bool',
            'newcomer_check?' => 'none|birth_date|number',
            'newcomer_mail?' => 'bool',
            'under_13?' => 'allow|approve|listed',
            'second_factor?' => 'optional|coordinators|staff',
            'day_opens?' => 'string',
            'day_closes?' => 'string',
            'keep_askings_days?' => 'int',
            'keep_lists_days?' => 'int',
            'keep_messages_days?' => 'int',
        ]),
    ]
    public function update(School $school, Request $request): Settings
    {
        $input = $request->validate([
            'name' => 'sometimes|string|max:120',
            'lowest_grade' => 'sometimes|string|max:4',
            'highest_grade' => 'sometimes|string|max:4',
            'mail_domains' => 'sometimes|array|max:20',
            'mail_domains.*' => 'string|max:120',
            'time_zone' => 'sometimes|string|max:60',
            'country' => 'sometimes|string|size:2|alpha:ascii',
            'naming_pattern' => 'sometimes|string|max:60',
            'ways' => 'sometimes|array|max:16',
            'ways.*' => 'in:card,passphrase,own,school',
            'stay_days_shared' => 'sometimes|integer',
            'stay_days_own' => 'sometimes|integer',
            'outside_staff' => 'sometimes|boolean',
            'newcomer_check' => 'sometimes|in:none,birth_date,number',
            'newcomer_mail' => 'sometimes|boolean',
            'under_13' => 'sometimes|in:allow,approve,listed',
            'second_factor' => 'sometimes|in:optional,coordinators,staff',
            'day_opens' => 'sometimes|string|max:5',
            'day_closes' => 'sometimes|string|max:5',
            'keep_askings_days' => 'sometimes|integer',
            'keep_lists_days' => 'sometimes|integer',
            'keep_messages_days' => 'sometimes|integer',
        ]);
        $row = $this->snapshots->find(Records\School::class, $school->id) ?? throw new NotFoundHttpException();
        $wish = [];
        foreach ($input as $field => $value) {
            $wish[$field] = match (true) {
                $field === 'lowest_grade', $field === 'highest_grade' => GradeLevel::read((string) $value)->order ?? 99,
                $field === 'mail_domains' => json_encode(
                    array_values(
                        array_unique(
                            array_map(
                                fn(mixed $d): string => mb_strtolower(ltrim(trim((string) $d), '@')),
                                (array) $value,
                            ),
                        ),
                    ),
                    JSON_THROW_ON_ERROR,
                ),
                is_bool($value) => $value ? 1 : 0,
                in_array(
                    $field,
                    [
                        'outside_staff',
                        'newcomer_mail',
                        'stay_days_shared',
                        'stay_days_own',
                        'keep_askings_days',
                        'keep_lists_days',
                        'keep_messages_days',
                    ],
                    true,
                )
                    => (int) $value,
                $field === 'country' => strtoupper((string) $value),
                default => $value,
            };
        }
        unset($wish['ways']);
        if (isset($input['ways'])) {
            $bands = [];
            foreach ((array) $input['ways'] as $grade => $way) {
                $order = GradeLevel::read((string) $grade)?->order;
                $bands[] = "$order:$order " . (is_string($way) ? $way : '');
            }
            $wish['sign_in_policy'] = SignInPolicy::read(implode(', ', $bands))->text();
        }
        $low = (int) ($wish['lowest_grade'] ?? $school->lowest_grade);
        $high = (int) ($wish['highest_grade'] ?? $school->highest_grade);
        $taught =
            $low > $high || $high > 13
                ? []
                : array_map(fn(int $g): string => GradeLevel::of($g)->code(), range($low, $high));
        $outside =
            $taught === [] || (!isset($wish['lowest_grade']) && !isset($wish['highest_grade']))
                ? 0
                : DB::table('people')
                    ->where('school_id', $school->id)
                    ->where('kind', 'student')
                    ->where('state', 'active')
                    ->whereNotNull('grade')
                    ->whereNotIn('grade', $taught)
                    ->count();
        $this->apply(
            SchoolSettings::change($row, $wish, DateTimeZone::listIdentifiers(), $outside),
            $school->id,
            $request,
            Action::Settings,
        );
        SchoolDay::forget();

        return $this->show($school);
    }

    #[Answers(NamesExample::class, 'What sections would be called by a pattern')]
    #[Takes(['pattern' => 'string'])]
    public function names(School $school, Request $request): NamesExample
    {
        $request->validate(['pattern' => 'required|string|max:60']);
        $pattern = SectionNames::check($request->string('pattern')->value());
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
    #[Takes(['name' => 'string', 'begins_on' => 'string', 'last_on' => 'string'])]
    public function planYear(School $school, Request $request): Settings
    {
        [$name, $begins, $ends] = $this->yearIn($request);
        $this->apply(
            SchoolYears::plan(
                $school->id,
                $name,
                $begins,
                $ends,
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
    #[Takes(['name' => 'string', 'begins_on' => 'string', 'last_on' => 'string'])]
    public function editYear(SchoolYear $year, Request $request): Settings
    {
        [$name, $begins, $ends] = $this->yearIn($request);
        $row = $this->snapshots->find(Records\SchoolYear::class, $year->id) ?? throw new NotFoundHttpException();
        $this->apply(
            SchoolYears::edit($row, $name, $begins, $ends, $this->years($year->school_id)),
            $year->school_id,
            $request,
            Action::Year,
        );

        return $this->show(School::query()->findOrFail($year->school_id));
    }

    /** @return array{string, string, string} name, first day, day after the last */
    private function yearIn(Request $request): array
    {
        $request->validate([
            'name' => 'required|string|max:20',
            'begins_on' => 'required|date_format:Y-m-d',
            'last_on' => 'required|date_format:Y-m-d',
        ]);

        return [
            trim($request->string('name')->value()),
            $request->string('begins_on')->value(),
            Span::after($request->string('last_on')->value()),
        ];
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
        /** @var Person $actor */
        $actor = $request->user();
        if (!$plan->isEmpty()) {
            $this->ledger->apply($plan, $schoolId, $actor, $action);
        }
    }
}
