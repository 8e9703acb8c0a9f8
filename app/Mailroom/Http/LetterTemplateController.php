<?php

declare(strict_types=1);

namespace App\Mailroom\Http;

use App\Mailroom\Http\Wishes\LetterTemplateWish;
use App\Mailroom\Views\LetterTemplateLine;
use App\Mailroom\Views\LetterTemplatePage;
use App\Models\Coordinators;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Mailroom\LetterTexts;
use Vantrel\Core\Plan\Refusal;

/** Words of letters kept under a name: the school’s, which coordinators write, and one’s own. */
final class LetterTemplateController
{
    #[Answers(LetterTemplatePage::class, 'Letters kept for another time: the school’s and one’s own')]
    public function index(School $school, Request $request): LetterTemplatePage
    {
        return $this->page($school->id, $request);
    }

    #[Answers(LetterTemplatePage::class, 'Keep one, in place of one of the same name')]
    #[Takes(LetterTemplateWish::class)]
    public function store(School $school, Request $request): LetterTemplatePage
    {
        return $this->keep($school->id, $request);
    }

    #[Answers(LetterTemplatePage::class, 'Forget one')]
    public function destroy(School $school, string $template, Request $request): LetterTemplatePage
    {
        return $this->forget($school->id, $template, $request);
    }

    #[Answers(LetterTemplatePage::class, 'The same for whoever writes to a section')]
    public function indexForSection(Section $section, Request $request): LetterTemplatePage
    {
        return $this->page($section->school_id, $request);
    }

    #[Answers(LetterTemplatePage::class, 'Keep one for oneself, in place of one of the same name')]
    #[Takes(LetterTemplateWish::class)]
    public function storeForSection(Section $section, Request $request): LetterTemplatePage
    {
        return $this->keep($section->school_id, $request);
    }

    #[Answers(LetterTemplatePage::class, 'Forget one of one’s own')]
    public function destroyForSection(Section $section, string $template, Request $request): LetterTemplatePage
    {
        return $this->forget($section->school_id, $template, $request);
    }

    private function keep(string $schoolId, Request $request): LetterTemplatePage
    {
        $wish = Wishes::of(LetterTemplateWish::class, $request);
        $person = Person::signedIn($request);
        $name = trim($wish->name);
        if ($name === '') {
            throw new Refusal('Give it a name.', 'name');
        }
        if ($wish->shared && !Coordinators::has($person, $schoolId)) {
            throw new Refusal('Only a coordinator keeps letters for the whole school.', 'shared');
        }
        DB::transaction(function () use ($schoolId, $wish, $person, $name): void {
            // One at a time of a school: the same name twice would be two letters.
            DB::table('schools')
                ->where('id', $schoolId)
                ->lockForUpdate()
                ->first(['id']);
            $own = DB::table('letter_templates')
                ->where('school_id', $schoolId)
                ->where('person_id', $wish->shared ? null : $person->id);
            $own->clone()->where('name', $name)->delete();
            if ($own->count() >= LetterTexts::MOST_KEPT) {
                throw new Refusal('There are ' . LetterTexts::MOST_KEPT . ' already. Forget one first.', 'name');
            }
            DB::table('letter_templates')->insert([
                'id' => (string) Str::ulid(),
                'school_id' => $schoolId,
                'person_id' => $wish->shared ? null : $person->id,
                'name' => $name,
                'texts' => json_encode($wish->texts(), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
                'made_at' => now(),
            ]);
        });

        return $this->page($schoolId, $request);
    }

    private function forget(string $schoolId, string $id, Request $request): LetterTemplatePage
    {
        $person = Person::signedIn($request);
        $own = DB::table('letter_templates')->where('school_id', $schoolId)->where('id', $id);
        $gone = Coordinators::has($person, $schoolId)
            ? $own->where(fn(Builder $q) => $q->whereNull('person_id')->orWhere('person_id', $person->id))->delete()
            : $own->where('person_id', $person->id)->delete();
        if ($gone === 0) {
            throw new NotFoundHttpException();
        }

        return $this->page($schoolId, $request);
    }

    private function page(string $schoolId, Request $request): LetterTemplatePage
    {
        $rows = DB::table('letter_templates')
            ->where('school_id', $schoolId)
            ->where(fn(Builder $q) => $q->whereNull('person_id')->orWhere('person_id', Person::signedIn($request)->id))
            ->orderBy('name')
            ->orderBy('id')
            ->get();

        return new LetterTemplatePage(array_values($rows->map(self::line(...))->all()));
    }

    private static function line(stdClass $row): LetterTemplateLine
    {
        /** @var array<string, array{subject: string, body: string}> $texts */
        $texts = (array) json_decode((string) $row->texts, true, 512, JSON_THROW_ON_ERROR);
        $others = array_diff_key($texts, ['en' => true]);

        return new LetterTemplateLine(
            (string) $row->id,
            (string) $row->name,
            $row->person_id === null,
            $texts['en']['subject'],
            $texts['en']['body'],
            array_map(fn(array $t): string => $t['subject'], $others),
            array_map(fn(array $t): string => $t['body'], $others),
        );
    }
}
