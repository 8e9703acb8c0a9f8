<?php

declare(strict_types=1);

namespace App\Door\Http;

use App\Door\Http\Wishes\ChosenCodeWish;
use App\Door\Http\Wishes\CodeTermsWish;
use App\Door\Http\Wishes\NewCodeWish;
use App\Door\Views\Arrival;
use App\Door\Views\ChosenView;
use App\Door\Views\CodeView;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use App\Platform\QrPath;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\TryCounter;
use App\Platform\Wishes;
use App\Sections\SectionDesk;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Codes\ChosenCode;
use Vantrel\Core\Codes\CodeChances;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Door\CodeTerms;
use Vantrel\Core\Door\JoinCodes;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\Legibility;
use Vantrel\Core\Records;
use Vantrel\Core\Records\CodeUse;

/** A section's join code: asked for, opened or replaced, its terms, closed. */
final class CodeController
{
    /** A picture of this width is what most rooms have; the wall says what it would be on another. */
    private const PICTURE_METRES = 1.5;

    public function __construct(private readonly SectionDesk $desk, private readonly PlannerKit $kit) {}

    #[Answers(CodeView::class, 'The code that works now, with who came in by it')]
    public function show(Section $section): CodeView
    {
        // A wall asks this every two seconds, in every room: all that is counted comes with the code.
        $row =
            DB::table('join_codes as c')
                ->where('c.section_id', $section->id)
                ->where('c.state', 'open')
                ->select('c.*')
                ->selectSub(self::open()->selectRaw('COUNT(*)'), 'all_open')
                ->selectSub(
                    DB::table('enrollments as e')
                        ->where('e.section_id', $section->id)
                        ->where('e.role', 'student')
                        ->where(SchoolDay::inForce('e', SchoolDay::today($section->school_id)))
                        ->selectRaw('COUNT(*)'),
                    'students',
                )
                ->selectSub(
                    DB::table('join_requests')
                        ->where('section_id', $section->id)
                        ->where('state', 'waiting')
                        ->selectRaw('COUNT(*)'),
                    'waiting',
                )
                ->first() ?? throw new NotFoundHttpException();
        $code = CodeSymbols::parse($row->code);
        $base = rtrim((string) config('app.url'), '/');
        $qr = QrPath::of("$base/in/$code->symbols");
        $arrived = DB::table('enrollments as e')
            ->join('people as p', 'p.id', '=', 'e.person_id')
            ->where('e.join_code_id', $row->id)
            ->whereNull('e.ends_on')
            ->orderByDesc('e.came_at')
            ->orderByDesc('e.id')
            ->limit(200)
            ->get(['p.called_name as given_name', 'p.family_name', 'e.came_at']);
        $written = $code->written();
        $length = strlen($code->symbols) - 1;
        $chances = new CodeChances((int) $row->all_open, TryCounter::codesADay());

        return new CodeView(
            $section->name,
            $written,
            "$base/in/$code->symbols",
            preg_replace('#^https?://#', '', $base) . '/in',
            $qr->path,
            $qr->size,
            (int) $row->students,
            array_values(
                $arrived
                    ->map(
                        fn(object $p): Arrival => new Arrival(
                            (new PersonName($p->given_name, $p->family_name))->display(),
                            Instant::isoOrNull($p->came_at),
                        ),
                    )
                    ->all(),
            ),
            (int) $row->waiting,
            $chances->guessPerDay($length),
            $chances->collision($length),
            $length,
            Instant::iso($row->opened_at),
            CodeUse::from($row->who),
            Instant::isoOrNull($row->starts_at),
            Instant::isoOrNull($row->ends_at),
            $row->cap === null ? null : (int) $row->cap,
            round(Legibility::typeSize(strlen($written)), 5),
            self::PICTURE_METRES,
            round(Legibility::codeReadableFrom(strlen($written), self::PICTURE_METRES), 1),
            round(1000 * self::PICTURE_METRES * Legibility::typeSize(strlen($written)) * Legibility::CAP_HEIGHT),
        );
    }

    #[Answers(CodeView::class, 'Give the section a new code; one it had stops working')]
    #[Takes(NewCodeWish::class)]
    public function store(Section $section, Request $request): CodeView
    {
        $wish = Wishes::of(NewCodeWish::class, $request);
        $chosen = null;
        if ($wish->chosen !== null && $wish->chosen !== '') {
            $judged = $this->chosen($section, $wish->chosen);
            $chosen = $judged->safe()
                ? $judged->code
                : throw new Refusal('That code is not safe to use. Look at the rules beside it.', 'chosen');
        }
        $seed = $this->kit->seed();
        $this->desk->apply(
            JoinCodes::open(
                $this->desk->row($section),
                $this->desk->of(Records\JoinCode::class, $section),
                $this->kit->codeBook($seed),
                $this->kit->ids($seed),
                $this->kit->now(),
                $this->terms($wish),
                $chosen,
            ),
            $section,
            $request,
            Action::Code,
        );

        return $this->show($section);
    }

    #[Answers(CodeView::class, 'Other terms for the code that is open; the code stays')]
    #[Takes(CodeTermsWish::class)]
    public function update(Section $section, Request $request): CodeView
    {
        $wish = Wishes::of(CodeTermsWish::class, $request);
        $open =
            $this->desk->snapshots->list(
                Records\JoinCode::class,
                fn($q) => $q->where('section_id', $section->id)->where('state', 'open'),
            )[0] ?? throw new NotFoundHttpException();
        $plan = JoinCodes::change($this->desk->row($section), $open, $this->terms($wish), $this->kit->now());
        if (!$plan->isEmpty()) {
            $this->desk->apply($plan, $section, $request, Action::Code);
        }

        return $this->show($section);
    }

    #[Answers(ChosenView::class, 'Whether a code somebody would like is safe: every rule, and why it does not hold')]
    #[Takes(ChosenCodeWish::class)]
    public function judge(Section $section, Request $request): ChosenView
    {
        $wish = Wishes::of(ChosenCodeWish::class, $request);
        $judged = $this->chosen($section, $wish->chosen);

        return new ChosenView($judged->safe(), $judged->code?->written() ?? '', $judged->rules);
    }

    #[Answers(null, 'Close the code')]
    public function destroy(Section $section, Request $request): Response
    {
        $this->desk->apply(
            JoinCodes::close(
                $this->desk->row($section),
                $this->desk->of(Records\JoinCode::class, $section),
                $this->kit->now(),
            ),
            $section,
            $request,
            Action::Code,
        );

        return response()->noContent();
    }

    private function chosen(Section $section, string $chosen): ChosenCode
    {
        $live = self::open()->count() + 1;
        $known = [
            $section->name,
            School::query()->findOrFail($section->school_id)->name,
            ...array_map(
                fn($e): string => Person::query()->findOrFail($e->personId())->family_name,
                $this->desk->staff($section),
            ),
        ];

        return ChosenCode::judge(
            $chosen,
            (new CodeChances($live, TryCounter::codesADay()))->payloadLength(),
            $this->kit->usedCodes(),
            $known,
            $this->kit->unfitWords(),
        );
    }

    /** Codes that work now, of all sections. */
    private static function open(): Builder
    {
        return DB::table('join_codes')->where('state', 'open');
    }

    private function terms(CodeTermsWish|NewCodeWish $wish): CodeTerms
    {
        $instant = fn(?string $typed): ?string => $typed === null
            ? null
            : Carbon::parse($typed)->utc()->format('Y-m-d H:i:s');

        return new CodeTerms($wish->who, $instant($wish->startsAt), $instant($wish->endsAt), $wish->cap);
    }
}
