<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\LookAlikes\Views\AccountLine;
use App\LookAlikes\Views\AccountSide;
use App\LookAlikes\Views\ClusterLine;
use App\Models\Person;
use App\Models\Realm;
use App\Platform\Instant;
use App\Platform\SchoolDay;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\LookAlikes\Cluster;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Values\GradeLevel;

/** What is shown of accounts that stand side by side, in a fixed number of queries. */
final class SideBySide
{
    private const AT_THE_DOOR = 'came in at the door: make sure who asked';

    /**
     * @param  list<Cluster>  $clusters
     * @return list<ClusterLine>
     */
    public function lines(Realm $realm, array $clusters): array
    {
        $ids = array_merge(...array_map(fn(Cluster $c): array => $c->ids, $clusters), ...[[]]);
        $people = Person::query()->whereIn('id', $ids)->get()->keyBy('id');
        $sections = $this->sections($ids, $realm)->map(fn(Collection $of): string => $of->implode(', '));
        $atTheDoor = array_flip(
            DB::table('sign_ins')
                ->whereIn('person_id', $ids)
                ->where('unproven', true)
                ->whereNotNull('password')
                ->pluck('person_id')
                ->all(),
        );
        $lines = [];
        foreach ($clusters as $cluster) {
            $accounts = [];
            foreach ($cluster->ids as $id) {
                $person = $people->get($id);
                if ($person !== null) {
                    $accounts[] = new AccountLine(
                        $id,
                        $person->fullName(),
                        $person->school_id,
                        implode(
                            ', ',
                            array_filter([
                                GradeLevel::read((string) $person->grade)?->label(),
                                $sections[$id] ?? null,
                                $person->number === null ? null : "number $person->number",
                                $person->kind === PersonKind::Student->value ? null : $person->email,
                            ]),
                        ),
                    );
                }
            }
            if (count($accounts) > 1) {
                $lines[] = new ClusterLine(
                    implode('-', array_map(fn(AccountLine $a): string => $a->id, $accounts)),
                    PersonKind::from($people[$accounts[0]->id]->kind ?? ''),
                    $accounts,
                    $cluster->probability(),
                    $cluster->caution() ?:
                    (array_intersect_key($atTheDoor, array_flip($cluster->ids)) === []
                        ? ''
                        : self::AT_THE_DOOR),
                    $cluster->isClear() && array_intersect_key($atTheDoor, array_flip($cluster->ids)) === [],
                );
            }
        }

        return $lines;
    }

    /**
     * @param  list<string>  $ids
     * @return list<AccountSide>
     */
    public function of(Realm $realm, PersonKind $kind, array $ids, string $staysId): array
    {
        $people = Person::query()->whereIn('id', $ids)->get()->keyBy('id');
        $sections = $this->sections($ids, $realm);
        $signIns = DB::table('sign_ins')
            ->whereIn('person_id', $ids)
            ->orderBy('user_name')
            ->get(['person_id', 'user_name', 'last_signed_in_at'])
            ->groupBy('person_id');
        [$own, $other] = $kind === PersonKind::Guardian ? ['guardian_id', 'student_id'] : ['student_id', 'guardian_id'];
        $relatives = DB::table('guardianships as g')
            ->join('people as p', 'p.id', '=', "g.$other")
            ->whereIn("g.$own", $ids)
            ->where('g.state', '!=', 'ended')
            ->orderBy('p.given_name')
            ->orderBy('p.family_name')
            ->get(["g.$own as own", 'p.school_id', 'p.given_name', 'p.family_name'])
            ->map(
                fn(stdClass $r): array => [
                    'own' => $r->own,
                    'n' => in_array($r->school_id, $realm->ids, true)
                        ? trim("$r->given_name $r->family_name")
                        : 'a student of another school',
                ],
            )
            ->groupBy('own');
        $words = fn(?Collection $of, string $column): array => array_values(
            ($of ?? collect())->pluck($column)->map(fn(mixed $v): string => (string) $v)->all(),
        );

        return array_map(function (string $id) use (
            $people,
            $staysId,
            $sections,
            $signIns,
            $relatives,
            $words,
        ): AccountSide {
            $last = ($signIns[$id] ?? collect())->max('last_signed_in_at');

            return new AccountSide(
                $id,
                $people->get($id)?->fullName() ?? '',
                $id === $staysId,
                array_values(($sections[$id] ?? collect())->map(strval(...))->all()),
                $words($signIns[$id] ?? null, 'user_name'),
                $words($relatives[$id] ?? null, 'n'),
                Instant::isoOrNull(is_string($last) ? $last : null),
            );
        }, $ids);
    }

    /**
     * @param  list<string>  $ids
     * @return Collection<array-key, Collection<array-key, mixed>> names of the sections each is in today
     */
    private function sections(array $ids, Realm $realm): Collection
    {
        return DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->whereIn('e.person_id', $ids)
            ->where(SchoolDay::inForce('e', $realm->today()))
            ->where('s.state', 'open')
            ->orderBy('s.kind')
            ->orderBy('s.name')
            ->get(['e.person_id', 's.name'])
            ->groupBy('person_id')
            ->map(fn(Collection $of): Collection => $of->pluck('name'));
    }
}
