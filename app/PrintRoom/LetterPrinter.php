<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\School;
use App\Platform\PlannerKit;
use Closure;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Accounts\Way;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\PrintRoom\LetterIssue;
use Vantrel\Core\PrintRoom\LetterKind;
use Vantrel\Core\Records;
use Vantrel\Core\Values\Language;

/**
 * Prints a letter for each student's family, in its language: with a code of its own and a slip, or with the login for
 * the summer. Issued through the ledger; nothing is kept of a code but its hash.
 */
final class LetterPrinter
{
    /** As wide as a code can be, to measure with. */
    private const WIDEST = 'MMMM-MMM-MMM';

    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
        private readonly PrintedPeople $people,
        private readonly Logins $logins,
        private readonly LetterTexts $texts,
    ) {}

    /**
     * @param  Closure(int): void|null  $progress told how many letters stand
     * @return string the PDF
     *
     * @throws Refusal where there is nobody to print for, a language lacks words, or a letter does not fit its page;
     *     nothing has been issued then
     */
    public function print(School $school, LetterJob $job, ?Person $actor, ?Closure $progress = null): string
    {
        $people = $this->people->of($school, $job->whom, 'letters');
        $languages = $this->languages($people, $job);
        $wordings = $this->texts->of($school, $job->kind);
        if (!$job->without) {
            $wordings->mustBeWhole(array_values(array_unique($languages)));
        }
        $logins = null;
        if ($job->kind === LetterKind::Summer) {
            $logins = $this->logins->of($people);
            $has = array_flip(array_map(fn(Records\SignIn $s): string => $s->personId(), $logins->printed));
            $people = $people->filter(fn(stdClass $p): bool => isset($has[$p->id]))->values();
        }
        $base = rtrim((string) config('app.url'), '/');
        $address = preg_replace('#^https?://#', '', $base) . ($job->kind === LetterKind::Family ? '/family' : '/');
        $letters = [];
        foreach ($people as $i => $person) {
            $language = $languages[$person->id];
            $letters[] = new Letter(
                $language,
                $wordings->languages[$language],
                [
                    'student' => NameShown::Full->of($person->given_name, $person->family_name),
                    'school' => $school->name,
                    'section' => $person->section,
                    'address' => $address,
                ],
                $logins === null
                    ? [['', self::WIDEST]]
                    : [['', $logins->printed[$i]->userName()], ['', $this->kit->longestPassphrase()]],
                '',
                $job->kind === LetterKind::Family ? '' : null,
            );
        }
        $pdf = new LetterPdf($job->paper, $school->name, $job->kind->label(), $job->language ?? $job->otherwise);
        $this->mustFit($pdf, $letters);
        $what = PrintedPeople::named($people, $job->whom);
        $letters =
            $logins === null
                ? $this->family($school, $people, $languages, $letters, $what, $actor, $base)
                : $this->summer($school, $people, $logins, $letters, $what, $actor, $base);

        return $pdf->of($letters, $progress);
    }

    /**
     * How many letters there would be in each language.
     *
     * @return array<string, int> by tag, the most first
     */
    public function count(School $school, LetterJob $job): array
    {
        $people = $this->people->of($school, $job->whom, 'letters');
        $counts = array_count_values($this->languages($people, $job));
        arsort($counts);

        return $counts;
    }

    /**
     * The language of each student's letter: the one on the student's own record, else that of a guardian, else the one
     * for all others.
     *
     * @param  Collection<int, stdClass>  $people
     * @return array<string, string> tag by student, in order
     */
    private function languages(Collection $people, LetterJob $job): array
    {
        if ($job->language !== null) {
            return array_fill_keys($people->pluck('id')->all(), $job->language);
        }
        $guardians = DB::table('guardianships as g')
            ->join('people as p', 'p.id', '=', 'g.guardian_id')
            ->whereIn('g.student_id', $people->whereNull('language')->pluck('id'))
            ->whereNotIn('g.state', ['refused', 'ended'])
            ->whereNull('g.restriction')
            ->whereNotNull('p.language')
            ->orderByDesc('g.id')
            ->pluck('p.language', 'g.student_id');
        $languages = [];
        foreach ($people as $person) {
            $language = (string) ($person->language ?? ($guardians[$person->id] ?? ''));
            $languages[$person->id] = in_array($language, Language::WRITTEN, true) ? $language : $job->otherwise;
        }

        return $languages;
    }

    /** @param  list<Letter>  $letters */
    private function mustFit(LetterPdf $pdf, array $letters): void
    {
        $long = array_values(array_filter($letters, fn(Letter $l): bool => !$pdf->fits($l)));
        if ($long === []) {
            return;
        }
        $names = array_unique(array_map(fn(Letter $l): string => Language::read($l->language)?->name() ?? '', $long));
        throw new Refusal(
            Words::count(count($long), 'letter does', 'letters do') .
                ' not fit on a page, in ' .
                Words::join(array_values($names)) .
                '. Shorten the school’s own wording there, or a user name that is too long for its box.',
            'wording',
        );
    }

    /**
     * @param  Collection<int, stdClass>  $people
     * @param  array<string, string>  $languages
     * @param  list<Letter>  $letters
     * @return list<Letter>
     */
    private function family(
        School $school,
        Collection $people,
        array $languages,
        array $letters,
        string $what,
        ?Person $actor,
        string $base,
    ): array {
        $seed = $this->kit->seed();
        $issue = LetterIssue::for(
            array_intersect_key($languages, $people->keyBy('id')->all()),
            $what,
            array_fill_keys(DB::table('family_letters')->pluck('slip')->all(), true),
            $this->kit->random("$seed letters"),
            fn(CodeSymbols $code): string => FamilyCodes::hash($code),
            $this->snapshots->list(
                Records\Guardianship::class,
                fn($q) => $q
                    ->whereIn('student_id', $people->pluck('id'))
                    ->where('state', 'listed')
                    ->whereNull('restriction'),
            ),
            $actor?->id,
            $this->kit->ids($seed),
            $this->kit->now(),
        );
        $this->ledger->apply($issue->plan, $school->id, $actor, Action::Letters);

        return array_map(
            fn(Letter $letter, int $i): Letter => $letter->with(
                [[$letter->text('code_label'), $issue->letters[$i]->code->written()]],
                "$base/family#{$issue->letters[$i]->code->symbols}",
                $issue->letters[$i]->slip->written(),
            ),
            $letters,
            array_keys($letters),
        );
    }

    /**
     * @param  Collection<int, stdClass>  $people
     * @param  list<Letter>  $letters
     * @return list<Letter>
     */
    private function summer(
        School $school,
        Collection $people,
        LoginSet $logins,
        array $letters,
        string $what,
        ?Person $actor,
        string $base,
    ): array {
        $policy = SignInPolicy::read($school->sign_in_policy);
        $issue = $this->logins->issue($logins, false, "$what, summer letters");
        $this->ledger->apply($issue->plan, $school->id, $actor, Action::Cards);
        $set = [];
        $grades = $people->pluck('grade')->all();
        foreach ($letters as $i => $letter) {
            $signIn = $logins->printed[$i];
            $secret = $issue->cards[$i]->passphrase ?? $this->logins->passphrase($signIn);
            $typed = match ($policy->way($grades[$i])) {
                Way::Card => $letter->text('square_only'),
                Way::School => $letter->text('sign_on'),
                default => $secret === '' ? $letter->text('own_secret') : $secret,
            };
            $set[] = $letter->with(
                [[$letter->text('user_label'), $signIn->userName()], [$letter->text('secret_label'), $typed]],
                "$base/b#{$issue->cards[$i]->badge->plain}",
                null,
            );
        }

        return $set;
    }
}
