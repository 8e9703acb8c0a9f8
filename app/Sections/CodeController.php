<?php

declare(strict_types=1);

namespace App\Sections;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\Instant;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Codes\CodeChances;
use Vantrel\Core\Codes\JoinCode;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Placement\JoinCodes;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Row;

/** A section's join code: asked for, opened or replaced, closed. */
final class CodeController
{
    public function __construct(private readonly Ledger $ledger, private readonly Snapshots $snapshots, private readonly CoreKit $kit)
    {
    }

    #[Answers(CodeView::class, 'The code that works now, with who came in by it')]
    public function show(Section $section): CodeView
    {
        $row = DB::table('join_codes')->where('section_id', $section->id)->where('state', 'open')->first() ?? throw new NotFoundHttpException;
        $code = JoinCode::parse($row->code);
        $link = rtrim((string) config('app.url'), '/').'/in/'.$code->symbols;
        $qr = QrPath::of($link);
        $students = DB::table('enrollments as e')->join('people as p', 'p.id', '=', 'e.person_id')->where('e.section_id', $section->id)->where('e.role', 'student')->whereNull('e.ends_on');
        $arrived = (clone $students)->where('e.source', 'code')->orderByDesc('e.version')->limit(8)->get(['p.given_name', 'p.family_name']);
        $chances = new CodeChances(DB::table('join_codes')->where('state', 'open')->count(), (int) config('vantrel.code_tries_per_day'));

        return new CodeView(
            $section->name, $code->written(), $link, preg_replace('#^https?://#', '', rtrim((string) config('app.url'), '/')).'/in', $qr->path, $qr->size,
            $students->count(), array_values($arrived->map(fn (object $p): string => (new PersonName($p->given_name, $p->family_name))->display())->all()),
            $chances->guessPerDay(strlen($code->symbols) - 1), Instant::iso($row->opened_at),
        );
    }

    #[Answers(CodeView::class, 'Give the section a new code; one it had stops working')]
    public function store(Section $section, Request $request): CodeView
    {
        $seed = $this->kit->seed();
        $this->apply($section, $request, JoinCodes::open($this->row($section), $this->codes($section), $this->kit->codeBook($seed), $this->kit->ids($seed), $this->kit->now()));

        return $this->show($section);
    }

    #[Answers(null, 'Close the code')]
    public function destroy(Section $section, Request $request): Response
    {
        $this->apply($section, $request, JoinCodes::close($this->row($section), $this->codes($section), $this->kit->now()));

        return response()->noContent();
    }

    private function apply(Section $section, Request $request, Plan $plan): void
    {
        /** @var Person $actor */
        $actor = $request->user();
        $this->ledger->apply($plan, $section->school_id, $actor, 'code');
    }

    private function row(Section $section): Row
    {
        return $this->snapshots->find(Entity::Section, $section->id) ?? throw new NotFoundHttpException;
    }

    /** @return list<Row> */
    private function codes(Section $section): array
    {
        return $this->snapshots->list(Entity::JoinCode, fn ($q) => $q->where('section_id', $section->id));
    }
}
