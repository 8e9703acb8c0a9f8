<?php

declare(strict_types=1);

namespace App\CommandBox;

use App\CommandBox\Views\Offer;
use App\CommandBox\Views\Placing;
use App\Ledger\Snapshots;
use App\LookAlikes\Kept;
use App\Models\Coordinators;
use App\Models\LedgerEntry;
use App\Models\Person;
use App\Models\Realm;
use App\Models\School;
use App\Models\Section;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Roll\Roll;
use App\Roll\Views\PersonLine;
use App\Sections\Placements;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;
use Vantrel\Core\CommandBox\Said;
use Vantrel\Core\CommandBox\Verb;
use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Sections\MoveKind;
use Vantrel\Core\Staffing\Power;

/**
 * What typing something into the one box would do: whom and which section was meant, and what it would come to. What
 * cannot be done says why. Nothing is done here.
 */
final class Offers
{
    /** What is offered of one kind before somebody has to type more. */
    private const FEW = 5;

    public function __construct(
        private readonly SectionNames $sections,
        private readonly Roll $roll,
        private readonly Kept $kept,
        private readonly Placements $placements,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
    ) {}

    /** @return list<Offer> */
    public function of(Said $said, School $school, Person $reader): array
    {
        $coordinates = Coordinators::has($reader, $school->id);
        if (!$coordinates && in_array($said->verb, [Verb::Move, Verb::Place, Verb::Merge, Verb::Undo], true)) {
            return [$this->cannot($said, 'That is for a coordinator of the school to do.')];
        }

        return match ($said->verb) {
            Verb::Undo => [$this->undo($said, $school)],
            Verb::Merge => $this->merge($said, $school),
            Verb::Move, Verb::Place => $this->place($said, $school, $reader),
            Verb::Cards, Verb::Code, Verb::AsOf, Verb::Archive => $this->section(
                $said,
                $school,
                $reader,
                $coordinates,
            ),
        };
    }

    private function cannot(Said $said, string $why): Offer
    {
        return new Offer("cannot {$said->verb->value}", $said->verb, $said->verb->example(), why: $why);
    }

    private function undo(Said $said, School $school): Offer
    {
        $entry = LedgerEntry::query()
            ->whereIn('seq', fn($q) => $q->select('entry_seq')->from('ledger_schools')->where('school_id', $school->id))
            ->whereNull('undone_at')
            ->where('changes_count', '>', 0)
            ->orderByDesc('seq')
            ->limit(50)
            ->get()
            ->first(fn(LedgerEntry $e): bool => $e->undoUntil()?->isFuture() === true);
        if ($entry === null) {
            return $this->cannot($said, 'There is nothing that can be undone.');
        }
        $actor = Person::query()->find($entry->actor_id)?->fullName() ?? 'Vantrel';
        $ago = CarbonImmutable::parse($entry->made_at, 'UTC')->diffForHumans();

        return new Offer(
            'undo',
            $said->verb,
            "Undo: $entry->title",
            Words::count($entry->changes_count, 'record') . " by $actor, $ago. Shows what goes back first.",
            entry: $entry->id,
        );
    }

    /** @return list<Offer> */
    private function merge(Said $said, School $school): array
    {
        $clusters = $this->kept->clusters(Realm::of($school));
        if ($said->what === '') {
            return $clusters === []
                ? [$this->cannot($said, 'Nobody here seems to have two accounts.')]
                : [$this->cluster($said, $clusters[0]->ids, 'The likeliest of ' . count($clusters) . '.')];
        }
        $people = $this->students($school, $said->what);
        if ($people === []) {
            return [$this->cannot($said, "No student is called “{$said->what}”.")];
        }
        if ($said->other !== '') {
            $others = array_values(
                array_filter(
                    $this->students($school, $said->other),
                    fn(PersonLine $o): bool => $o->id !== $people[0]->id,
                ),
            );

            return $others === []
                ? [$this->cannot($said, "No other student is called “{$said->other}”.")]
                : array_map(fn(PersonLine $o): Offer => $this->cluster($said, [$people[0]->id, $o->id], ''), $others);
        }
        $offers = [];
        $wanted = array_map(fn(PersonLine $p): string => $p->id, $people);
        foreach ($clusters as $cluster) {
            if (array_intersect($cluster->ids, $wanted) !== [] && count($offers) < self::FEW) {
                $offers[] = $this->cluster($said, $cluster->ids, '');
            }
        }

        return $offers === []
            ? [
                $this->cannot(
                    $said,
                    "No other account looks like {$people[0]->name}. Name both, if you know better: " .
                        Verb::Merge->example() .
                        '.',
                ),
            ]
            : $offers;
    }

    /** @param  list<string>  $ids */
    private function cluster(Said $said, array $ids, string $what): Offer
    {
        $ids = array_slice($ids, 0, MergePlanner::MOST);
        $people = Person::query()->whereIn('id', $ids)->get()->keyBy('id');
        $names = array_map(function (string $id) use ($people): string {
            $person = $people->get($id);

            return $person?->fullName() . ($person?->number === null ? '' : " ($person->number)");
        }, $ids);

        return new Offer(
            'merge ' . implode(' ', $ids),
            $said->verb,
            'Hold ' . Words::join($names) . ' against each other',
            trim("$what Nothing is merged before you have looked."),
            'look-alikes/' . implode('-', $ids),
        );
    }

    /** @return list<Offer> */
    private function place(Said $said, School $school, Person $reader): array
    {
        if ($said->what === '' || $said->other === '') {
            return [$this->cannot($said, 'Say whom, and into which section: ' . $said->verb->example() . '.')];
        }
        $people = $this->students($school, $said->what);
        if ($people === []) {
            return [$this->cannot($said, "No student is called “{$said->what}”, or has that number.")];
        }
        $into = $this->sections->called($school, $said->other, $reader);
        if ($into === []) {
            return [$this->cannot($said, "No section is called “{$said->other}”.")];
        }
        $from = $said->from === '' ? null : $this->sections->called($school, $said->from, $reader);
        if ($from === []) {
            return [$this->cannot($said, "No section is called “{$said->from}”.")];
        }
        $offers = [];
        foreach (array_slice($people, 0, count($into) === 1 ? self::FEW : 1) as $person) {
            foreach ($into as $section) {
                $offers[] = $this->placing($said, $school, $person, $section, $from[0] ?? null);
            }
        }

        return $offers;
    }

    private function placing(Said $said, School $school, PersonLine $line, Section $into, ?Section $from): Offer
    {
        $seed = $this->kit->seed();
        $day = SchoolDay::at($school->id, $this->kit->ids($seed)->instant());
        $leaves = $said->verb === Verb::Place ? [] : ($from === null ? $this->leaves($line, $into, $day) : [$from]);
        $id = "place $line->id $into->id";
        if (count($leaves) > 1) {
            $names = array_map(fn(Section $s): string => $s->name, $leaves);

            return new Offer(
                $id,
                $said->verb,
                "Move $line->name to $into->name",
                why: 'Say which section they leave, of ' .
                    Words::some($names, 4) .
                    ": move {$said->what} from $names[0] to $into->name.",
            );
        }
        $from = $leaves[0] ?? null;
        $label =
            $from === null ? "Place $line->name in $into->name" : "Move $line->name from $from->name to $into->name";
        $record = fn(?Section $s): ?Records\Section => $s === null
            ? null
            : $this->snapshots->find(Records\Section::class, $s->id);
        try {
            $person = $this->snapshots->find(Records\Person::class, $line->id);
            $plan = $this->placements->plan(
                $this->placements->move(
                    $from === null ? MoveKind::Also : MoveKind::Move,
                    $person === null ? [] : [$person],
                    $record($from),
                    $record($into),
                    $day,
                ),
                $seed,
            );
        } catch (Refusal $e) {
            return new Offer($id, $said->verb, $label, why: $e->getMessage());
        }
        if ($plan->isEmpty() || $plan->blockers !== []) {
            $why = $plan->blockers[0] ?? ($plan->rows[0]->why ?? '');

            return new Offer($id, $said->verb, $label, why: $why === '' ? $plan->sentence : ucfirst("$why."));
        }

        return new Offer(
            $id,
            $said->verb,
            $label,
            trim($plan->sentence . ' ' . implode(' ', $plan->warnings)),
            placing: new Placing($line->id, $from?->id, $into->id, $day, $seed, $plan->fingerprint()),
        );
    }

    /** @return list<Section> open ones of the kind of the section somebody comes into that they are in */
    private function leaves(PersonLine $person, Section $into, string $day): array
    {
        return array_values(
            Section::query()
                ->whereIn(
                    'id',
                    DB::table('enrollments as e')
                        ->where('e.person_id', $person->id)
                        ->where('e.role', 'student')
                        ->where(SchoolDay::inForce('e', $day))
                        ->select('e.section_id'),
                )
                ->where('kind', $into->kind)
                ->where('state', 'open')
                ->where('id', '!=', $into->id)
                ->orderBy('name')
                ->get()
                ->all(),
        );
    }

    /** @return list<Offer> */
    private function section(Said $said, School $school, Person $reader, bool $coordinates): array
    {
        if ($said->day === null || ($said->verb === Verb::AsOf && $said->day === '')) {
            return [$this->cannot($said, 'Name the day so that it can be read one way: 1 sep, monday, 2026-09-01.')];
        }
        if ($said->what === '') {
            return [$this->cannot($said, 'Say which section: ' . $said->verb->example() . '.')];
        }
        $sections = $this->sections->called($school, $said->what, $reader);
        if ($sections === []) {
            return [$this->cannot($said, "No section is called “{$said->what}”.")];
        }
        $power = match ($said->verb) {
            Verb::Cards => Power::PrintCards,
            Verb::Code => Power::UseCode,
            Verb::Archive => Power::Archive,
            default => Power::SeeRoster,
        };
        $counts = DB::table('enrollments as e')
            ->whereIn('e.section_id', array_map(fn(Section $s): string => $s->id, $sections))
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', $said->day === '' ? SchoolDay::today($school->id) : $said->day))
            ->groupBy('e.section_id')
            ->selectRaw('e.section_id, count(*) n')
            ->pluck('n', 'section_id');

        return array_map(
            fn(Section $s): Offer => $this->ofSection(
                $said,
                $s,
                Words::count((int) ($counts[$s->id] ?? 0), 'student'),
                Gate::allows($power->value, $s) ? '' : 'You may not do that there.',
                $coordinates,
            ),
            $sections,
        );
    }

    private function ofSection(Said $said, Section $s, string $students, string $why, bool $coordinates): Offer
    {
        [$label, $what, $path] = match ($said->verb) {
            Verb::Cards => [
                "Cards for $s->name",
                $coordinates
                    ? "Opens the print for $students."
                    : "Opens the section; print the cards of $students there.",
                $coordinates ? "print-room?sections=$s->id" : "sections/$s->id",
            ],
            Verb::Code => ["Code of $s->name on the wall", 'Shows it large. An open code stays as it is.', null],
            Verb::Archive => [
                "Archive $s->name",
                "Shows what that ends for $students first.",
                "sections/$s->id?do=archive",
            ],
            default => [
                "$s->name as of " . Words::day((string) $said->day),
                "Shows the roster of that day, $students.",
                "sections/$s->id?as_of=$said->day",
            ],
        };

        return $why === ''
            ? new Offer(
                "{$said->verb->value} $s->id",
                $said->verb,
                $label,
                $what,
                $path,
                $said->verb === Verb::Code ? $s->id : null,
            )
            : new Offer("{$said->verb->value} $s->id", $said->verb, $label, why: $why);
    }

    /** @return list<PersonLine> students that a number or name means: the one with that number, else the best few */
    private function students(School $school, string $text): array
    {
        $found = array_values(
            array_filter(
                $this->roll->find(Realm::of($school), $text),
                fn(PersonLine $p): bool => $p->kind === PersonKind::Student,
            ),
        );
        $exact = array_values(
            array_filter(
                $found,
                fn(PersonLine $p): bool => $p->number === $text || mb_strtolower($p->name) === mb_strtolower($text),
            ),
        );

        return array_slice($exact === [] ? $found : $exact, 0, self::FEW);
    }
}
