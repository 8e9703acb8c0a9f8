<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Models\School;
use App\Platform\SchoolDay;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\Database\Query\Expression;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Throwable;
use Vantrel\Core\Guardians\Hears;
use Vantrel\Core\Mailroom\BoardItem;
use Vantrel\Core\Mailroom\Digest;
use Vantrel\Core\Mailroom\DigestTimes;
use Vantrel\Core\Mailroom\MessageKind;

/**
 * Digests of guardians, each at the hour they chose. Up to when somebody has been told stands beside the mail, in one
 * transaction: so whatever is killed, each notice is in one digest, and none is told of twice.
 */
final readonly class Digests
{
    private const CHUNK = 200;

    public function __construct(private Outbox $outbox) {}

    /**
     * What goes wrong with one guardian's is reported and holds nobody else's up.
     *
     * @return int how many mails were written
     */
    public function run(School $school): int
    {
        $now = CarbonImmutable::now('UTC')->format('Y-m-d H:i:s');
        $written = 0;
        foreach ($this->choices($school) as $choice) {
            $often = Hears::from((string) $choice->often);
            $due = DigestTimes::due($often, (int) $choice->at_hour, $school->time_zone, $now);
            $failed = [];
            while ($due !== null && ($ids = $this->waiting($school, $choice, $due, $failed))->isNotEmpty()) {
                $written += $this->writeOrApart($school, $ids, $often, $due, $failed);
            }
        }

        return $written;
    }

    /**
     * @param  Collection<int, mixed>  $ids of guardians
     * @param  list<mixed>  $failed ids of those it went wrong with
     */
    private function writeOrApart(School $school, Collection $ids, Hears $often, string $due, array &$failed): int
    {
        try {
            return DB::transaction(fn(): int => $this->write($school, $ids, $often, $due));
        } catch (Throwable $e) {
            if ($ids->count() > 1) {
                $written = 0;
                foreach ($ids as $id) {
                    $written += $this->writeOrApart($school, collect([$id]), $often, $due, $failed);
                }

                return $written;
            }
            report($e);
            $failed[] = $ids->sole();

            return 0;
        }
    }

    /**
     * How often and at which hours guardians of the school hear.
     *
     * @return Collection<int, stdClass>
     */
    private function choices(School $school): Collection
    {
        return $this->guardians($school)
            ->distinct()
            ->get([self::often(), self::hour()]);
    }

    /**
     * @param  list<mixed>  $failed ids to leave out
     * @return Collection<int, mixed> ids of the next who have not been told up to then
     */
    private function waiting(School $school, stdClass $choice, string $due, array $failed): Collection
    {
        return $this->guardians($school)
            ->whereNotIn('p.id', $failed)
            ->whereRaw('coalesce(d.often, ?) = ?', [Hears::UNSAID->value, $choice->often])
            ->whereRaw('coalesce(d.at_hour, ?) = ?', [Hears::HOUR, $choice->at_hour])
            ->where(fn(Builder $q) => $q->whereNull('t.until')->orWhere('t.until', '<', $due))
            ->orderBy('p.id')
            ->limit(self::CHUNK)
            ->pluck('p.id');
    }

    /** Who hears at all: connected with a child, not kept away, with an address, and not told to be left alone. */
    private function guardians(School $school): Builder
    {
        return DB::table('people as p')
            ->leftJoin('digest_choices as d', 'd.person_id', '=', 'p.id')
            ->leftJoin('digests_told as t', 't.person_id', '=', 'p.id')
            ->where('p.school_id', $school->id)
            ->where('p.state', 'active')
            ->whereNotNull('p.email')
            ->whereRaw('coalesce(d.often, ?) <> ?', [Hears::UNSAID->value, Hears::Off->value])
            ->where(
                fn(Builder $q) => $q
                    ->whereNotNull('d.often')
                    ->orWhereNotExists(
                        fn(Builder $o) => HearsChoices::offAs($o)->whereColumn('earlier.merged_into', 'p.id'),
                    ),
            )
            ->whereExists(
                fn(Builder $g) => $g
                    ->from('guardianships as g')
                    ->whereColumn('g.guardian_id', 'p.id')
                    ->whereIn('g.state', MessageKind::Digest->heardBy())
                    ->whereNull('g.restriction'),
            );
    }

    /** @param  Collection<int, mixed>  $ids of guardians */
    private function write(School $school, Collection $ids, Hears $often, string $due): int
    {
        // Locked: two workers at one time write one digest.
        DB::table('people')->whereIn('id', $ids)->lockForUpdate()->pluck('id');
        $people = $this->guardians($school)
            ->whereIn('p.id', $ids)
            ->where(fn(Builder $q) => $q->whereNull('t.until')->orWhere('t.until', '<', $due))
            ->get(['p.id', 'p.email', 'p.language', 't.until']);
        $children = DB::table('guardianships as g')
            ->join('people as s', 's.id', '=', 'g.student_id')
            ->whereIn('g.guardian_id', $people->pluck('id'))
            ->whereIn('g.state', MessageKind::Digest->heardBy())
            ->whereNull('g.restriction')
            ->where('s.state', 'active')
            ->orderBy('s.called_name')
            ->orderBy('s.id')
            ->get(['g.guardian_id', 's.id', 's.called_name', 's.school_id'])
            ->groupBy('guardian_id');
        $count = 0;
        foreach (
            $people->groupBy(fn(stdClass $p): string => (new FamilyWords($p->language))->language)
            as $tag => $of
        ) {
            $own = $of->flatMap(fn(stdClass $p) => ($children[$p->id] ?? collect())->pluck('id'))->unique();
            $from = CarbonImmutable::parse($of->min('until') ?? $due)->subDays(Digest::FIRST);
            $items = Boards::items(array_values($own->all()), true, (string) $tag, $from);
            foreach ($of as $person) {
                $count += $this->mail($school, $person, $children[$person->id] ?? collect(), $items, $often, $due);
            }
        }
        DB::table('digests_told')->upsert(
            $people->map(fn(stdClass $p): array => ['person_id' => $p->id, 'until' => $due])->all(),
            ['person_id'],
        );

        return $count;
    }

    /**
     * @param  Collection<int, stdClass>  $children of the guardian
     * @param  array<string, list<BoardItem>>  $items by child
     * @return int whether one was written: 1 or 0
     */
    private function mail(
        School $school,
        stdClass $person,
        Collection $children,
        array $items,
        Hears $often,
        string $due,
    ): int {
        $first = CarbonImmutable::parse($due)->subDays(Digest::FIRST)->format('Y-m-d H:i:s');
        $told = [];
        foreach ($children as $child) {
            $digest = Digest::of(
                $items[$child->id] ?? [],
                $often,
                (string) ($person->until ?? $first),
                $due,
                SchoolDay::today((string) $child->school_id),
            );
            if (!$digest->isEmpty()) {
                $told[(string) $child->id] = [(string) $child->called_name, $digest];
            }
        }
        if ($told === []) {
            return 0;
        }
        $text = new DigestText(
            new FamilyWords($person->language),
            $school->name,
            HearsLink::of((string) $person->id),
            (string) config('app.url'),
        );
        $this->outbox->put(
            new Headers(
                $school->id,
                MessageKind::Digest,
                $school->name,
                (string) $person->id,
                array_map(strval(...), array_keys($told)),
                $text->words->language,
            ),
            'mail',
            (string) $person->email,
            $text->subject(array_values($told)),
            $text->body(array_values($told)),
            $text->html(array_values($told)),
        );

        return 1;
    }

    private static function often(): Expression
    {
        return DB::raw("coalesce(d.often, '" . Hears::UNSAID->value . "') as often");
    }

    private static function hour(): Expression
    {
        return DB::raw('coalesce(d.at_hour, ' . Hears::HOUR . ') as at_hour');
    }
}
