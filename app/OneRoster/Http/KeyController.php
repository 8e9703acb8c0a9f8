<?php

declare(strict_types=1);

namespace App\OneRoster\Http;

use App\Models\Person;
use App\Models\RosterKey;
use App\Models\School;
use App\OneRoster\Http\Wishes\KeyWish;
use App\OneRoster\RosterKeys;
use App\OneRoster\Views\KeyLine;
use App\OneRoster\Views\KeyPage;
use App\Platform\Answers;
use App\Platform\Instant;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\OneRoster\Scope;

/** Programs that read a school's rosters: their keys, when each was last used, and its end. */
final readonly class KeyController
{
    public function __construct(private RosterKeys $keys) {}

    #[Answers(KeyPage::class, 'Keys of programs that read the rosters')]
    public function index(School $school): KeyPage
    {
        return self::page($school);
    }

    #[Answers(KeyPage::class, 'Make a key for a program; its secret is shown this once')]
    #[Takes(KeyWish::class)]
    public function store(School $school, Request $request): KeyPage
    {
        $wish = Wishes::of(KeyWish::class, $request);
        [$key, $secret] = $this->keys->make($school, $wish->name, $wish->scopes(), Person::signedIn($request));

        return self::page($school, $secret, $key->id);
    }

    #[Answers(KeyPage::class, 'End a key: the next request with it is refused')]
    public function destroy(School $school, string $key, Request $request): KeyPage
    {
        $this->keys->end(
            RosterKey::query()->where('school_id', $school->id)->find($key) ?? throw new NotFoundHttpException(),
            Person::signedIn($request),
        );

        return self::page($school);
    }

    private static function page(School $school, string $secret = '', string $made = ''): KeyPage
    {
        $base = rtrim((string) config('app.url'), '/');
        /** @var Collection<int, RosterKey> $keys */
        $keys = RosterKey::query()
            ->where('school_id', $school->id)
            ->orderByRaw('ended_at IS NOT NULL')
            ->orderByDesc('made_at')
            ->orderByDesc('id')
            ->limit(100)
            ->get();
        $by = DB::table('people')
            ->whereIn('id', $keys->pluck('made_by'))
            ->selectRaw("id, TRIM(CONCAT(given_name, ' ', family_name)) AS n")
            ->pluck('n', 'id');

        return new KeyPage(
            array_values(
                $keys
                    ->map(
                        fn(RosterKey $k): KeyLine => new KeyLine(
                            $k->id,
                            $k->name,
                            array_map(fn(Scope $s): string => $s->label(), RosterKeys::scopes($k->scopes)),
                            Instant::iso($k->made_at),
                            (string) ($by[$k->made_by] ?? ''),
                            Instant::isoOrNull($k->last_used_at),
                            (string) $k->last_used_for,
                            Instant::isoOrNull($k->ended_at),
                        ),
                    )
                    ->all(),
            ),
            "$base/" . ServiceController::BASE,
            "$base/ims/oneroster/token",
            $secret,
            $made,
        );
    }
}
