<?php

declare(strict_types=1);

namespace App\Guardians\Commands;

use App\Guardians\InviteDesk;
use App\Ledger\Snapshots;
use App\Models\School;
use App\Platform\EachSchool;
use App\Platform\SchoolDay;
use Carbon\CarbonImmutable;
use Illuminate\Console\Command;
use Vantrel\Core\Guardians\Invites;
use Vantrel\Core\Records\GuardianInvitation;

/** Reminds, once, guardians who were invited a week ago or more and have not answered. */
final class RemindGuardiansCommand extends Command
{
    /** When families read their mail: after school, by the school's clock. */
    private const HOUR = '16';

    private const CHUNK = 500;

    protected $signature = 'vantrel:remind-guardians {--now : at any hour}';

    protected $description = 'Remind guardians who were invited a week ago and have not answered';

    public function handle(InviteDesk $desk, Snapshots $snapshots): int
    {
        return EachSchool::run(function (School $school) use ($desk, $snapshots): void {
            $isTime = $this->option('now') || substr(SchoolDay::clock($school->id), 0, 2) === self::HOUR;
            if (!$school->remind_guardians || !$isTime) {
                return;
            }
            $reminded = 0;
            while (($due = $this->due($snapshots, $school->id)) !== []) {
                $desk->remind($school, $due, null);
                $reminded += count($due);
            }
            if ($reminded > 0) {
                $this->info("$school->name: $reminded reminded.");
            }
        });
    }

    /** @return list<GuardianInvitation> */
    private function due(Snapshots $snapshots, string $schoolId): array
    {
        $now = CarbonImmutable::now('UTC');

        return $snapshots->list(
            GuardianInvitation::class,
            fn($q) => $q
                ->where('school_id', $schoolId)
                ->where('state', 'open')
                ->whereNull('reminded_at')
                ->whereNotIn('id', fn($o) => $o->select('invitation_id')->from('guardian_outbox'))
                ->whereNotIn('email', fn($b) => $b->select('address')->from('bounced_addresses'))
                ->where('sent_at', '<=', $now->subDays(Invites::REMIND_AFTER)->format('Y-m-d H:i:s'))
                ->where('expires_at', '>', $now->format('Y-m-d H:i:s'))
                ->orderBy('id')
                ->limit(self::CHUNK),
        );
    }
}
