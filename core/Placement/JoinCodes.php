<?php

declare(strict_types=1);

namespace Vantrel\Core\Placement;

use Vantrel\Core\Codes\CodeBook;
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
     * @param  string  $now UTC instant
     *
     * @throws Refusal where the section is archived
     */
    public static function open(Row $section, array $codes, CodeBook $book, Ids $ids, string $now): Plan
    {
        if ($section->text('state') !== 'open') {
            throw new Refusal("{$section->text('name')} is archived: it can be read, but nobody can come in by a code.");
        }
        $plan = new PlanBuilder;
        $replaced = self::closeAll($plan, $codes, $now, 'replaced');
        self::insert($plan, $section->id, $book, $ids, $now);

        return $plan->build($replaced ? "New code for {$section->text('name')}" : "Code for {$section->text('name')}", $replaced
            ? "The old code of {$section->text('name')} stops working and a new one opens it."
            : "A code opens {$section->text('name')} to students.");
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

    /** Adds a fresh code for a section to a larger plan. */
    public static function insert(PlanBuilder $plan, string $sectionId, CodeBook $book, Ids $ids, string $now): void
    {
        $code = $book->draw();
        $plan->insert(Entity::JoinCode, $ids->for('code', $sectionId, $code->symbols), [
            'section_id' => $sectionId, 'code' => $code->symbols, 'state' => 'open', 'opened_at' => $now, 'closed_at' => null,
        ], 'code opened');
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
}
