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
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use LogicException;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\CardIssue;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;
use Vantrel\Core\PrintRoom\CardSecrets;
use Vantrel\Core\PrintRoom\CardWish;
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
     * @param  list<string>  $sectionIds
     * @param  list<string>  $personIds of these only, where any are named
     * @param  bool  $lost whether earlier cards are lost and must stop working
     * @return string the PDF
     *
     * @throws Refusal where there is nobody to print, or too many at once
     */
    public function print(
        School $school,
        array $sectionIds,
        array $personIds,
        CardLayout $layout,
        CardOrder $order,
        bool $lost,
        ?Person $actor,
    ): string {
        $sheet = $layout->sheet();
        $people = DB::table('enrollments as e')
            ->join('people as p', 'p.id', '=', 'e.person_id')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->whereIn('e.section_id', $sectionIds)
            ->where('s.school_id', $school->id)
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', SchoolDay::today($school->id)))
            ->whereIn('p.state', ['active', 'reserve'])
            // A student of another school who comes here too has the card of that school.
            ->where('p.school_id', $school->id)
            ->when($personIds !== [], fn($q) => $q->whereIn('p.id', $personIds))
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
                's.name as section',
            ])
            ->unique('id')
            ->values();
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
        $seed = $this->kit->seed();
        $names = $people->pluck('section')->unique();
        $issue = CardIssue::for(
            new CardWish(
                $ordered,
                $lost,
                $names->count() === 1 ? (string) $names->first() : "{$names->count()} sections",
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
        $base = rtrim((string) config('app.url'), '/');
        $cards = [];
        $byId = $people->keyBy('id');
        $policy = SignInPolicy::read($school->sign_in_policy);
        foreach ($issue->cards as $i => $card) {
            $person = $byId[$ordered[$i]->personId()] ?? throw new LogicException('A card of nobody.');
            $cards[] = new Card(
                NameShown::for($person->name_shown, $school->name_shown)->of($person->given_name, $person->family_name),
                $person->section,
                $ordered[$i]->userName(),
                $card->passphrase ?? $this->passphrase($ordered[$i]),
                "$base/b#{$card->badge->plain}",
                $policy->way($person->grade),
            );
        }

        return CardPdf::of($cards, $sheet, $order, $school->name, (string) preg_replace('#^https?://#', '', $base));
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
