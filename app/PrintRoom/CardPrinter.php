<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Ledger\Ledger;
use App\Models\Person;
use App\Models\School;
use App\Platform\PlannerKit;
use Closure;
use LogicException;
use stdClass;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\PrintRoom\Paper;
use Vantrel\Core\Records;

/**
 * Prints login cards: issues badges and missing passphrases through the ledger, and sets the sheets. Nothing is kept
 * but their hashes.
 */
final class CardPrinter
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly PlannerKit $kit,
        private readonly PrintedPeople $people,
        private readonly Logins $logins,
    ) {}

    /**
     * @param  Closure(int): void|null  $progress told how many cards stand
     * @return string the PDF
     *
     * @throws Refusal where there is nobody to print, or too many at once, or something does not fit; nothing has been
     *     issued then
     */
    public function print(School $school, CardJob $job, ?Person $actor, ?Closure $progress = null): string
    {
        $lost = $job->lost;
        $job->paper->face();
        $people = $this->people->of($school, $job->whom, 'cards');
        $logins = $this->logins->of($people);
        $base = rtrim((string) config('app.url'), '/');
        $pdf = new CardPdf($job->paper, $school->name, (string) preg_replace('#^https?://#', '', $base));
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
                $logins->printed,
            ),
            $job->shorten,
        );
        $issue = $this->logins->issue($logins, $lost, PrintedPeople::named($people, $job->whom));
        $this->ledger->apply($issue->plan, $school->id, $actor, Action::Cards);
        $cards = [];
        foreach ($issue->cards as $i => $card) {
            $cards[] = $drafts[$i]->with(
                $card->passphrase ?? $this->logins->passphrase($logins->printed[$i]),
                "$base/b#{$card->badge->plain}",
            );
        }

        return $pdf->of($cards, $progress);
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
            $stays ? $this->logins->passphrase($signIn) : $this->kit->longestPassphrase(),
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
}
