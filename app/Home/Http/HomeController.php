<?php

declare(strict_types=1);

namespace App\Home\Http;

use App\Home\Http\Wishes\HomeWish;
use App\Home\Http\Wishes\SeenWish;
use App\Home\Views\Home;
use App\Home\Views\HomeNotice;
use App\Home\Views\HomeSection;
use App\Home\Views\HomeStudent;
use App\Mailroom\Boards;
use App\Models\Person;
use App\Platform\Answers;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Rosters\Children;
use App\Rosters\Teachers;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Mailroom\BoardItem;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\SectionKind;

final class HomeController
{
    #[Answers(Home::class, 'The own page of a student or guardian')]
    #[Takes(HomeWish::class)]
    public function show(Request $request): Home
    {
        $wish = Wishes::of(HomeWish::class, $request);
        $person = Person::signedIn($request);
        $ids = self::whose($person);
        /** @var Collection<int, Person> $students */
        $students = Person::query()
            ->with('signIns')
            ->whereIn('id', $ids)
            ->whereIn('state', ['active', 'reserve'])
            ->orderBy('given_name')
            ->get();
        $sections = DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->join('schools as c', 'c.id', '=', 's.school_id')
            ->whereIn('e.person_id', $ids)
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', SchoolDay::today($person->school_id)))
            ->where('s.state', 'open')
            ->orderBy('s.kind')
            ->orderBy('s.name')
            ->get(['e.person_id', 's.id', 's.name', 's.kind', 'c.name as school']);
        $teachers = Teachers::of($sections->pluck('id'), $person->school_id);
        $boards = Boards::of($ids, $person->kind !== 'student', $wish->language ?? 'en');

        return new Home(
            PersonKind::from($person->kind),
            array_values(
                $students
                    ->map(
                        fn(Person $s): HomeStudent => new HomeStudent(
                            $s->id,
                            trim("{$s->calledName()} $s->family_name"),
                            $s->calledName(),
                            $person->kind === 'student' ? (string) $s->signIns->first()?->user_name : '',
                            array_values(
                                $sections
                                    ->where('person_id', $s->id)
                                    ->map(
                                        fn(object $x): HomeSection => new HomeSection(
                                            $x->name,
                                            SectionKind::from($x->kind),
                                            $x->school,
                                            $teachers[$x->id] ?? [],
                                        ),
                                    )
                                    ->all(),
                            ),
                            HomeNotice::all($boards[$s->id]->missing ?? []),
                            HomeNotice::all($boards[$s->id]->coming ?? []),
                            HomeNotice::all($boards[$s->id]->new ?? []),
                        ),
                    )
                    ->all(),
            ),
            $person->kind === 'student' ? [] : Children::awaited($person),
        );
    }

    #[Answers(null, 'What has been before one’s eyes: of what is there to be read for one, nothing else is noted')]
    #[Takes(SeenWish::class)]
    public function seen(Request $request): Response
    {
        $person = Person::signedIn($request);
        $own = [];
        foreach (Boards::of(self::whose($person), $person->kind !== 'student', 'en') as $board) {
            array_push($own, ...array_map(fn(BoardItem $i): string => $i->id, $board->all()));
        }
        $seen = array_intersect(array_unique($own), Wishes::of(SeenWish::class, $request)->ids);
        DB::table('notice_seen')->insertOrIgnore(
            array_map(
                fn(string $id): array => ['notice_id' => $id, 'person_id' => $person->id, 'seen_at' => now()],
                array_values($seen),
            ),
        );

        return response()->noContent();
    }

    /** @return list<string> ids of whom the page is about */
    private static function whose(Person $person): array
    {
        return $person->kind === 'student' ? [$person->id] : Children::of($person);
    }
}
