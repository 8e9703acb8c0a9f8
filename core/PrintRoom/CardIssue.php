<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

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
     * @param  list<Badge>  $badges that are live, of all sign-ins of these people
     * @param  list<SignIn>  $others further sign-ins of these people, after a merge: a lost card may have been theirs
     * @param  string  $now UTC instant
     */
    public static function for(
        CardWish $wish,
        array $badges,
        array $others,
        CardSecrets $secrets,
        Ids $ids,
        string $now,
    ): self {
        $plan = new PlanBuilder();
        $cards = [];
        foreach ($wish->signIns as $signIn) {
            $passphrase = null;
            if ($signIn->password() === null && ($wish->lost || $signIn->passphrase() === null)) {
                $passphrase = $secrets->sheet->draw();
                $plan->update(
                    $signIn,
                    ['passphrase' => ($secrets->seal)($passphrase)],
                    $wish->lost ? 'card lost' : 'card printed',
                );
            }
            $badge = Token::draw($secrets->random);
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
        if ($wish->lost) {
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
                "$count, {$wish->what}",
                "Prints $count for {$wish->what}" . ($wish->lost ? '; the cards printed before stop working.' : '.'),
            ),
            $cards,
        );
    }
}
