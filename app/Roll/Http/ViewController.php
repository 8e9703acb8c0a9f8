<?php

declare(strict_types=1);

namespace App\Roll\Http;

use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Roll\Http\Wishes\ViewWish;
use App\Roll\Views\SavedView;
use App\Roll\Views\SavedViewPage;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Plan\Refusal;

/** Views of the Roll kept under a name. */
final class ViewController
{
    /** More names than these nobody reads. */
    private const MOST = 30;

    #[Answers(SavedViewPage::class, 'Views of the Roll kept under a name: the school’s and one’s own')]
    public function index(School $school, Request $request): SavedViewPage
    {
        return $this->page($school, $request);
    }

    #[Answers(SavedViewPage::class, 'Keep a view, in place of one of the same name')]
    #[Takes(ViewWish::class)]
    public function store(School $school, Request $request): SavedViewPage
    {
        $wish = Wishes::of(ViewWish::class, $request);
        $name = trim($wish->name);
        if ($name === '') {
            throw new Refusal('Give the view a name.', 'name');
        }
        DB::transaction(function () use ($school, $request, $wish, $name): void {
            $owner = $wish->shared ? null : Person::signedIn($request)->id;
            // One at a time of a school: the same name twice would be two views.
            DB::table('schools')->where('id', $school->id)->lockForUpdate()->first();
            $own = DB::table('roll_views')->where('school_id', $school->id)->where('person_id', $owner);
            $own->clone()->where('name', $name)->delete();
            if ($own->count() >= self::MOST) {
                throw new Refusal('There are ' . self::MOST . ' views already. Forget one first.', 'name');
            }
            DB::table('roll_views')->insert([
                'id' => (string) Str::ulid(),
                'school_id' => $school->id,
                'person_id' => $owner,
                'name' => $name,
                'query' => $wish->query,
                'made_at' => now(),
            ]);
        });

        return $this->page($school, $request);
    }

    #[Answers(SavedViewPage::class, 'Forget a view')]
    public function destroy(School $school, string $view, Request $request): SavedViewPage
    {
        if ($this->seen($school, $request)->where('id', $view)->delete() === 0) {
            throw new NotFoundHttpException();
        }

        return $this->page($school, $request);
    }

    private function page(School $school, Request $request): SavedViewPage
    {
        return new SavedViewPage(
            array_values(
                $this->seen($school, $request)
                    ->orderBy('name')
                    ->orderBy('id')
                    ->get()
                    ->map(
                        fn(stdClass $v): SavedView => new SavedView(
                            $v->id,
                            $v->name,
                            $v->query,
                            $v->person_id === null,
                        ),
                    )
                    ->all(),
            ),
        );
    }

    private function seen(School $school, Request $request): Builder
    {
        return DB::table('roll_views')
            ->where('school_id', $school->id)
            ->where(fn(Builder $q) => $q->whereNull('person_id')->orWhere('person_id', Person::signedIn($request)->id));
    }
}
