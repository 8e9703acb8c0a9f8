<?php

declare(strict_types=1);

namespace Vantrel\Core\Placement;

use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\JoinCode;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

/** Opening, closing and replacing a section's join code. A section has at most one that works. */
final class JoinCodes
{
    /**
     * Gives the section a code; one it has stops working.
     *
     * @param  list<Row>  $codes of the section
     * @param  JoinCode|null  $chosen one that a person chose and {@see \Vantrel\Core\Codes\ChosenCode} found safe; null draws one
     * @param  string  $now UTC instant
     *
     * @throws Refusal where the section is archived
     */
    public static function open(Row $section, array $codes, CodeBook $book, Ids $ids, string $now, CodeTerms $terms = new CodeTerms, ?JoinCode $chosen = null): Plan
    {
        if ($section->text('state') !== 'open') {
            throw new Refusal("{$section->text('name')} is archived: it can be read, but nobody can come in by a code.");
        }
        self::mustNotBeOver($terms, $now);
        $plan = new PlanBuilder;
        $replaced = self::closeAll($plan, $codes, $now, 'replaced');
        self::add($plan, $section->id, $chosen ?? $book->draw(), $terms, $ids, $now);

        return $plan->build($replaced ? "New code for {$section->text('name')}" : "Code for {$section->text('name')}", $replaced
            ? "The old code of {$section->text('name')} stops working and a new one opens it."
            : "A code opens {$section->text('name')} to students.");
    }

    /**
     * Other terms for the code that is open; the code itself stays.
     *
     * @throws Refusal where it is closed, or would be over at once
     */
    public static function change(Row $section, Row $code, CodeTerms $terms, string $now): Plan
    {
        if ($code->text('state') !== 'open') {
            throw new Refusal('This code is closed. Open a new one.');
        }
        self::mustNotBeOver($terms, $now);
        $plan = new PlanBuilder;
        $plan->update(Entity::JoinCode, $code, $terms->columns(), 'terms changed');

        return $plan->build("Terms of the code of {$section->text('name')}", "Changes when and for whom the code of {$section->text('name')} works. Who is in stays in.");
    }

    /**
     * @param  list<Row>  $codes
     *
     * @throws Refusal where none is open
     */
    public static function close(Row $section, array $codes, string $now): Plan
    {
        $plan = new PlanBuilder;
        if (! self::closeAll($plan, $codes, $now, 'closed')) {
            throw new Refusal("{$section->text('name')} has no open code.");
        }

        return $plan->build("Code of {$section->text('name')} closed", "The code of {$section->text('name')} stops working. Who is in stays in.");
    }

    /**
     * Whether a code lets another student in now.
     *
     * @param  int  $cameIn how many are in the section by it
     * @param  string  $now UTC instant
     *
     * @throws Refusal in words for the student
     */
    public static function mustAdmit(Row $code, int $cameIn, string $now): void
    {
        if ($code->maybe('starts_at') !== null && $code->text('starts_at') > $now) {
            throw new Refusal('This code does not work yet. Try again when your teacher says so.', 'code');
        }
        if ($code->maybe('ends_at') !== null && $code->text('ends_at') <= $now) {
            throw new Refusal('This code has ended. Ask your teacher for a new one.', 'code');
        }
        if ($code->maybe('cap') !== null && $cameIn >= (int) $code->text('cap')) {
            throw new Refusal('All places for this code are taken. Tell your teacher, who can let more in.', 'code');
        }
    }

    /** Adds a fresh code for a section to a larger plan. */
    public static function insert(PlanBuilder $plan, string $sectionId, CodeBook $book, Ids $ids, string $now): void
    {
        self::add($plan, $sectionId, $book->draw(), new CodeTerms, $ids, $now);
    }

    /**
     * @param  list<Row>  $codes
     * @return bool whether any was open
     */
    public static function closeAll(PlanBuilder $plan, array $codes, string $now, string $reason): bool
    {
        $any = false;
        foreach ($codes as $code) {
            if ($code->text('state') === 'open') {
                $plan->update(Entity::JoinCode, $code, ['state' => 'closed', 'closed_at' => $now], $reason);
                $any = true;
            }
        }

        return $any;
    }

    private static function add(PlanBuilder $plan, string $sectionId, JoinCode $code, CodeTerms $terms, Ids $ids, string $now): void
    {
        $plan->insert(Entity::JoinCode, $ids->for('code', $sectionId, $code->symbols), [
            'section_id' => $sectionId, 'code' => $code->symbols, 'state' => 'open', 'opened_at' => $now, 'closed_at' => null, ...$terms->columns(),
        ], 'code opened');
    }

    private static function mustNotBeOver(CodeTerms $terms, string $now): void
    {
        if ($terms->endsAt !== null && $terms->endsAt <= $now) {
            throw new Refusal('That end has passed already. Choose a later one, or close the code.', 'ends_at');
        }
    }
}
