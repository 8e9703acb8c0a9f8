<?php

declare(strict_types=1);

namespace App\Roll;

use App\Ledger\EntryRedone;
use App\Ledger\EntryUndone;
use App\Ledger\EntryWritten;
use App\Roll\Jobs\SettleRoll;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\Entity;

/** Whom an entry affects is marked within its transaction; what the Roll keeps of them is settled before it is read. */
final class FollowEntries
{
    /** From so many on a worker begins at once, so that whoever reads next has little to wait for. */
    private const MANY = 200;

    public function handle(EntryWritten|EntryUndone|EntryRedone $event): void
    {
        $affected = $event->affected;
        $judged = $affected->students(
            $affected->people(
                Entity::Person,
                Entity::Enrollment,
                Entity::Section,
                Entity::SignIn,
                Entity::Badge,
                Entity::Guardianship,
            ),
        );
        Stale::Problems->mark($judged);
        // Another rule of a school is another answer for everybody in it, as another day is.
        $schools = $affected->rows(Entity::School);
        if ($schools !== []) {
            DB::table('roll_days')->whereIn('school_id', $schools)->delete();
        }
        $renamed = $affected->renamed();
        Stale::Words->mark($renamed);
        if (max($judged->count(), $renamed->count()) > self::MANY) {
            SettleRoll::dispatch();
        }
    }
}
