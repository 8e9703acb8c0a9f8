<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Closure;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\Randomness;
use Vantrel\Core\Guardians\Ties;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\FamilyLetter;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;

/**
 * Family letters: each has a code of its own, so that two households of one child have one each, and a slip. Letters
 * printed before go on working.
 */
final readonly class LetterIssue
{
    /**
     * Symbols of a family code without the check: as long as a code can be, for there is one for every letter of every
     * school, and each opens the way to a child.
     */
    public const CODE = CodeSymbols::MAX_PAYLOAD;

    /** Of a slip, which opens nothing. */
    public const SLIP = CodeSymbols::MIN_PAYLOAD;

    /** @param  list<IssuedLetter>  $letters in the order of the students */
    private function __construct(public Plan $plan, public array $letters) {}

    /**
     * @param  array<string, string>  $languages by student, in the order of the letters
     * @param  array<string, true>  $slips of every letter there ever was
     * @param  Closure(CodeSymbols): string  $hash as a code is kept
     * @param  list<Guardianship>  $listed guardians whom the letters invite: those not connected, invited or kept away
     * @param  string|null  $by who prints
     * @param  string  $now UTC instant
     */
    public static function for(
        array $languages,
        string $what,
        array $slips,
        Randomness $random,
        Closure $hash,
        array $listed,
        ?string $by,
        Ids $ids,
        string $now,
    ): self {
        $plan = new PlanBuilder();
        $letters = [];
        foreach ($languages as $studentId => $language) {
            do {
                $slip = CodeSymbols::draw($random, self::SLIP);
            } while (isset($slips[$slip->symbols]));
            $slips[$slip->symbols] = true;
            $code = CodeSymbols::draw($random, self::CODE);
            $plan->insert(
                Entity::FamilyLetter,
                $ids->for('letter', $studentId),
                [
                    'student_id' => $studentId,
                    'language' => $language,
                    'token_hash' => $hash($code),
                    'state' => 'live',
                    'slip' => $slip->symbols,
                    'made_at' => $now,
                    'ended_at' => null,
                    'returned_at' => null,
                ],
                'letter printed',
            );
            $letters[] = new IssuedLetter($studentId, $code, $slip);
        }
        foreach ($listed as $link) {
            $plan->update($link, Ties::to(GuardianshipState::Invited, $by, $now), 'invited by letter');
        }
        $count = Words::count(count($letters), 'family letter');

        return new self($plan->build("$count, $what", "Prints $count for $what."), $letters);
    }

    /**
     * A slip has come back signed.
     *
     * @param  string  $name of the student
     * @param  string  $now UTC instant
     */
    public static function returned(FamilyLetter $letter, string $name, string $now): Plan
    {
        if ($letter->returnedAt() !== null) {
            throw new Refusal("The slip of $name is ticked off already.", 'slip');
        }
        $plan = new PlanBuilder();
        $plan->update($letter, ['returned_at' => $now], 'slip came back');

        return $plan->build("Slip of $name", "The slip of $name has come back signed.");
    }
}
