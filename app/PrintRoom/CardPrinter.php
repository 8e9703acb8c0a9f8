<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\School;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use LogicException;
use stdClass;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\PrintRoom\CardIssue;
use Vantrel\Core\PrintRoom\CardSecrets;
use Vantrel\Core\PrintRoom\CardWish;
use Vantrel\Core\PrintRoom\Paper;
use Vantrel\Core\Records;

/**
 * Prints login cards: issues badges and missing passphrases through the ledger, and sets the sheets. Nothing is kept
 * but their hashes.
 */
final class CardPrinter
{
    public const MOST = 1500;

    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
    ) {}

    /**
     * @param  list<string>  $sectionIds none where students are named, wherever they are
     * @param  list<string>  $personIds of these only, where any are named
     * @param  bool  $lost whether earlier cards are lost and must stop working
     * @param  bool  $shorten whether a name that does not fit may stand with a letter for the family name
     * @return string the PDF
     *
     * @throws Refusal where there is nobody to print, or too many at once, or something does not fit; nothing has been
     *     issued then
     */
    public function print(
        School $school,
        array $sectionIds,
        array $personIds,
        Paper $paper,
        bool $lost,
        bool $shorten,
        ?Person $actor,
    ): string {
        $people = $this->people($school, $sectionIds, $personIds);
        if ($people->isEmpty()) {
            throw new Refusal('There are no students in what was chosen.');
        }
        if ($people->count() > self::MOST) {
            throw new Refusal(
                "These are {$people->count()} cards; up to " .
                    self::MOST .
                    ' are printed at once. Choose fewer sections.',
            );
        }
        $all = $this->snapshots->list(Records\SignIn::class, fn($q) => $q->whereIn('person_id', $people->pluck('id')));
        $signIns = CardIssue::printed($all);
        $ordered = [];
        foreach ($people as $person) {
            if (isset($signIns[$person->id])) {
                $ordered[] = $signIns[$person->id];
            }
        }
        $base = rtrim((string) config('app.url'), '/');
        $pdf = new CardPdf($paper, $school->name, (string) preg_replace('#^https?://#', '', $base));
        $byId = $people->keyBy('id');
        $drafts = $this->fitting(
            $pdf,
            array_map(
                fn(Records\SignIn $s): Card => $this->draft(
                    $byId[$s->personId()] ?? throw new LogicException('A card of nobody.'),
                    $s,
                    $school,
                    $lost,
                ),
                $ordered,
            ),
            $shorten,
        );
        $seed = $this->kit->seed();
        $names = $people->pluck('section')->unique();
        $issue = CardIssue::for(
            new CardWish(
                $ordered,
                $lost,
                match (true) {
                    $sectionIds === [] => Words::count($people->count(), 'student'),
                    $names->count() === 1 => (string) $names->first(),
                    default => "{$names->count()} sections",
                },
            ),
            $lost
                ? $this->snapshots->list(
                    Records\Badge::class,
                    fn($q) => $q
                        ->where('state', 'live')
                        ->whereIn('sign_in_id', array_map(fn(Records\SignIn $s): string => $s->id, $all)),
                )
                : [],
            $lost ? array_values(array_filter($all, fn(Records\SignIn $s): bool => !in_array($s, $ordered, true))) : [],
            new CardSecrets(
                $this->kit->passphrases($seed),
                $this->kit->random("$seed badges"),
                Crypt::encryptString(...),
            ),
            $this->kit->ids($seed),
            $this->kit->now(),
        );
        $this->ledger->apply($issue->plan, $school->id, $actor, Action::Cards);
        $cards = [];
        foreach ($issue->cards as $i => $card) {
            $cards[] = $drafts[$i]->with(
                $card->passphrase ?? $this->passphrase($ordered[$i]),
                "$base/b#{$card->badge->plain}",
            );
        }

        return $pdf->of($cards);
    }

    /** A page that shows where cards will stand. */
    public function test(School $school, Paper $paper): string
    {
        return (new CardPdf($paper, $school->name, '', 'Test page for cards'))->test();
    }

    /** The card as wide as it can become: where the passphrase is made anew, with one of the longest words. */
    private function draft(stdClass $person, Records\SignIn $signIn, School $school, bool $lost): Card
    {
        $stays = $signIn->password() !== null || ($signIn->passphrase() !== null && !$lost);

        return new Card(
            NameShown::for($person->name_shown, $school->name_shown)->of($person->given_name, $person->family_name),
            NameShown::Initial->of($person->given_name, $person->family_name),
            $person->section,
            $signIn->userName(),
            $stays ? $this->passphrase($signIn) : $this->kit->longestPassphrase(),
            '',
            SignInPolicy::read($school->sign_in_policy)->way($person->grade),
        );
    }

    /**
     * @param  list<Card>  $cards
     * @return list<Card> all of which fit
     *
     * @throws Refusal naming those that do not
     */
    private function fitting(CardPdf $pdf, array $cards, bool $shorten): array
    {
        if ($shorten) {
            $long = array_map(fn(Card $c): string => $c->userName, $pdf->misfits($cards));
            $cards = array_map(fn(Card $c): Card => in_array($c->userName, $long, true) ? $c->shortened() : $c, $cards);
        }
        $misfits = $pdf->misfits($cards);
        if ($misfits !== []) {
            $who = Words::some(array_map(fn(Card $c): string => "$c->name ($c->userName)", $misfits));
            throw new Refusal(
                (count($misfits) === 1
                    ? "What is on the card of $who does not fit on this size. "
                    : "What is on these cards does not fit on this size: $who. ") .
                    ($shorten ? 'Choose a larger one.' : 'Choose a larger one, or let long names be shortened.'),
                'shorten',
            );
        }

        return $cards;
    }

    /**
     * @param  list<string>  $sectionIds
     * @param  list<string>  $personIds
     * @return Collection<int, stdClass> each student once, with the section the card is sorted under
     */
    private function people(School $school, array $sectionIds, array $personIds): Collection
    {
        $today = SchoolDay::today($school->id);

        return DB::table('people as p')
            ->leftJoin(
                'enrollments as e',
                fn(JoinClause $on) => $on
                    ->on('e.person_id', '=', 'p.id')
                    ->where('e.role', 'student')
                    ->where(SchoolDay::inForce('e', $today)),
            )
            ->leftJoin(
                'sections as s',
                fn(JoinClause $on) => $on->on('s.id', '=', 'e.section_id')->where('s.school_id', $school->id),
            )
            // A student of another school who comes here too has the card of that school.
            ->where('p.school_id', $school->id)
            ->where('p.kind', 'student')
            ->whereIn('p.state', ['active', 'reserve'])
            ->when($sectionIds !== [] || $personIds === [], fn(Builder $q) => $q->whereIn('s.id', $sectionIds))
            ->when($personIds !== [], fn(Builder $q) => $q->whereIn('p.id', $personIds))
            ->orderBy('s.kind')
            ->orderBy('s.name')
            ->orderBy('p.family_name')
            ->orderBy('p.given_name')
            ->orderBy('p.id')
            ->get([
                'p.id',
                'p.called_name as given_name',
                'p.family_name',
                'p.name_shown',
                'p.grade',
                DB::raw("ifnull(s.name, '') as section"),
            ])
            ->unique('id')
            ->values();
    }

    private function passphrase(Records\SignIn $signIn): string
    {
        try {
            return $signIn->password() !== null ? '' : Crypt::decryptString((string) $signIn->passphrase());
        } catch (DecryptException) {
            throw new Refusal(
                "The passphrase of {$signIn->userName()} cannot be read with this server's key. Print the " .
                    'card with “the earlier cards are lost”.',
            );
        }
    }
}
