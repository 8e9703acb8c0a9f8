<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\CodeState;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;

/** Opening, closing and replacing a section's join code. A section has at most one that works. */
final class JoinCodes
{
    /**
     * Gives the section a code; one it has stops working.
     *
     * @param  list<JoinCode>  $codes of the section
     * @param CodeSymbols|null $chosen one that a person chose and {@see \Vantrel\Core\Codes\ChosenCode} found safe;
     *     null draws one
     * @param  string  $now UTC instant
     *
     * @throws Refusal where the section is archived
     */
    public static function open(
        Section $section,
        array $codes,
        CodeBook $book,
        Ids $ids,
        string $now,
        CodeTerms $terms = new CodeTerms(),
        ?CodeSymbols $chosen = null,
    ): Plan {
        if ($section->state() !== SectionState::Open) {
            throw new Refusal("{$section->name()} is archived: it can be read, but nobody can come in by a code.");
        }
        self::mustNotBeOver($terms, $now);
        $plan = new PlanBuilder();
        $replaced = self::closeAll($plan, $codes, $now, 'replaced');
        self::add($plan, $section->id, $chosen ?? $book->draw(), $terms, $ids, $now);

        return $plan->build(
            $replaced ? "New code for {$section->name()}" : "Code for {$section->name()}",
            $replaced
                ? "The old code of {$section->name()} stops working and a new one opens it."
                : "A code opens {$section->name()} to students.",
        );
    }

    /**
     * Other terms for the code that is open; the code itself stays.
     *
     * @throws Refusal where it is closed, or would be over at once
     */
    public static function change(Section $section, JoinCode $code, CodeTerms $terms, string $now): Plan
    {
        if ($code->state() !== CodeState::Open) {
            throw new Refusal('This code is closed. Open a new one.');
        }
        self::mustNotBeOver($terms, $now);
        $plan = new PlanBuilder();
        $plan->update($code, $terms->columns(), 'terms changed');

        return $plan->build(
            "Terms of the code of {$section->name()}",
            "Changes when and for whom the code of {$section->name()} works. Students already in stay in.",
        );
    }

    /**
     * @param  list<JoinCode>  $codes
     *
     * @throws Refusal where none is open
     */
    public static function close(Section $section, array $codes, string $now): Plan
    {
        $plan = new PlanBuilder();
        if (!self::closeAll($plan, $codes, $now, 'closed')) {
            throw new Refusal("{$section->name()} has no open code.");
        }

        return $plan->build(
            "Code of {$section->name()} closed",
            "The code of {$section->name()} stops working. Students already in stay in.",
        );
    }

    /**
     * A student with an account comes in by a code. Empty where they are in already.
     *
     * @param  list<Enrollment>  $enrollments the student's own
     * @param  int  $cameIn how many are in the section by this code
     *
     * @throws Refusal in words for the student
     */
    public static function enter(
        Section $section,
        JoinCode $code,
        Person $person,
        array $enrollments,
        int $cameIn,
        Occasion $at,
    ): Plan {
        Enrolling::mustBeOpen($section);
        if ($person->kind() !== PersonKind::Student || $person->state() !== PersonState::Active) {
            throw new Refusal('A join code is for students. Staff come in by invitation.');
        }
        $plan = new PlanBuilder();
        if (Enrolling::isIn($section->id, $enrollments, $at->today)) {
            return $plan->build("{$section->name()}", "{$person->givenName()} is in {$section->name()} already.");
        }
        self::mustAdmit($code, $cameIn, $at->now);
        Enrolling::atTheDoor($plan, $section->id, $person->id, 'code', $code->id, $at);

        return $plan->build(
            "Into {$section->name()} by code",
            $person->fullName() . " comes into {$section->name()} by its code.",
        );
    }

    /**
     * Whether a code lets another student in now.
     *
     * @param  int  $cameIn how many are in the section by it
     * @param  string  $now UTC instant
     *
     * @throws Refusal in words for the student
     */
    public static function mustAdmit(JoinCode $code, int $cameIn, string $now): void
    {
        if ($code->startsAt() !== null && (string) $code->startsAt() > $now) {
            throw new Refusal('This code does not work yet. Try again when your teacher says so.', 'code');
        }
        if ($code->endsAt() !== null && (string) $code->endsAt() <= $now) {
            throw new Refusal('This code has ended. Ask your teacher for a new one.', 'code');
        }
        if ($code->cap() !== null && $cameIn >= $code->cap()) {
            throw new Refusal('All places for this code are taken. Tell your teacher, who can let more in.', 'code');
        }
    }

    /** Adds a fresh code for a section to a larger plan. */
    public static function insert(PlanBuilder $plan, string $sectionId, CodeBook $book, Ids $ids, string $now): void
    {
        self::add($plan, $sectionId, $book->draw(), new CodeTerms(), $ids, $now);
    }

    /**
     * @param  list<JoinCode>  $codes
     * @return bool whether any was open
     */
    public static function closeAll(PlanBuilder $plan, array $codes, string $now, string $reason): bool
    {
        $any = false;
        foreach ($codes as $code) {
            if ($code->state() === CodeState::Open) {
                $plan->update($code, ['state' => 'closed', 'closed_at' => $now], $reason);
                $any = true;
            }
        }

        return $any;
    }

    private static function add(
        PlanBuilder $plan,
        string $sectionId,
        CodeSymbols $code,
        CodeTerms $terms,
        Ids $ids,
        string $now,
    ): void {
        $plan->insert(
            Entity::JoinCode,
            $ids->for('code', $sectionId, $code->symbols),
            [
                'section_id' => $sectionId,
                'code' => $code->symbols,
                'state' => 'open',
                'opened_at' => $now,
                'closed_at' => null,
                ...$terms->columns(),
            ],
            'code opened',
        );
    }

    private static function mustNotBeOver(CodeTerms $terms, string $now): void
    {
        if ($terms->endsAt !== null && $terms->endsAt <= $now) {
            throw new Refusal('That end has passed already. Choose a later one, or close the code.', 'ends_at');
        }
    }
}
