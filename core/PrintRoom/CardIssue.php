<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Closure;
use Vantrel\Core\Accounts\PassphraseSheet;
use Vantrel\Core\Codes\Randomness;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Badge;
use Vantrel\Core\Records\BadgeState;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\SignIn;

/**
 * Gives sign-ins what a card needs: a badge each, and a passphrase where there is none. Cards printed before go on
 * working unless they are lost: then their badges die and the passphrase is a new one.
 */
final readonly class CardIssue
{
    /** @param  list<IssuedCard>  $cards in the order of the sign-ins */
    private function __construct(public Plan $plan, public array $cards) {}

    /**
     * The user name that goes on a card, of those a person has after a merge: the one made first, which the child knows
     * longest.
     *
     * @param  list<SignIn>  $signIns in the order they were made
     * @return array<string, SignIn> by person
     */
    public static function printed(array $signIns): array
    {
        $printed = [];
        foreach ($signIns as $signIn) {
            $printed[$signIn->personId()] ??= $signIn;
        }

        return $printed;
    }

    /**
     * @param  list<SignIn>  $signIns
     * @param  list<Badge>  $badges that are live, of all sign-ins of these people
     * @param  list<SignIn>  $others further sign-ins of these people, after a merge: a lost card may have been theirs
     * @param  Closure(string): string  $seal encrypts a passphrase for the database
     * @param  bool  $lost whether the cards printed before are lost
     */
    public static function for(
        array $signIns,
        array $badges,
        array $others,
        PassphraseSheet $sheet,
        Randomness $random,
        Closure $seal,
        Ids $ids,
        string $now,
        bool $lost,
        string $what,
    ): self {
        $plan = new PlanBuilder();
        $cards = [];
        foreach ($signIns as $signIn) {
            $passphrase = null;
            if ($signIn->password() === null && ($lost || $signIn->passphrase() === null)) {
                $passphrase = $sheet->draw();
                $plan->update($signIn, ['passphrase' => $seal($passphrase)], $lost ? 'card lost' : 'card printed');
            }
            $badge = Token::draw($random);
            $plan->insert(
                Entity::Badge,
                $ids->for('badge', $signIn->id),
                [
                    'sign_in_id' => $signIn->id,
                    'token_hash' => $badge->hash(),
                    'state' => 'live',
                    'made_at' => $now,
                    'ended_at' => null,
                ],
                'card printed',
            );
            $cards[] = new IssuedCard($signIn->id, $passphrase, $badge);
        }
        if ($lost) {
            foreach ($others as $other) {
                $plan->update($other, ['passphrase' => null], 'card lost');
            }
            foreach ($badges as $badge) {
                if ($badge->state() === BadgeState::Live) {
                    $plan->update($badge, ['state' => 'lost', 'ended_at' => $now], 'card lost');
                }
            }
        }
        $count = Words::count(count($cards), 'login card');

        return new self(
            $plan->build(
                "$count, $what",
                "Prints $count for $what" . ($lost ? '; the cards printed before stop working.' : '.'),
            ),
            $cards,
        );
    }
}
