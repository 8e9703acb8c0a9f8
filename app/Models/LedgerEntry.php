<?php

declare(strict_types=1);

namespace App\Models;

use App\Platform\Instant;
use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Action;

/**
 * One thing that was done, and can be undone.
 *
 * @property int $seq
 * @property string $id
 * @property string $school_id
 * @property string|null $actor_id
 * @property string $action
 * @property string $title
 * @property string $sentence
 * @property list<array{key: string, count: int, label: string}> $tallies
 * @property int $changes_count
 * @property string|null $work_key
 * @property string $made_at
 * @property string|null $undone_at
 * @property string|null $undone_by
 * @property list<string>|null $kept
 * @property int|null $redone_as number of the entry that did it again
 * @property string|null $cleared_at since when its details are gone
 */
final class LedgerEntry extends Model
{
    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'ledger_entries';

    protected $keyType = 'string';

    protected $guarded = [];

    public function action(): Action
    {
        return Action::from($this->action);
    }

    /** @return list<string> ids of the schools whose records it wrote, or that it was put to */
    public function schools(): array
    {
        return array_values(
            DB::table('ledger_schools')
                ->where('entry_seq', $this->seq)
                ->orderBy('school_id')
                ->pluck('school_id')
                ->map(fn(mixed $id): string => (string) $id)
                ->all(),
        );
    }

    /** Until when what is done now could be undone, as the API gives instants; null where it cannot be. */
    public static function openFromNow(Action $action): ?string
    {
        $days = $action->undoDays();

        return $days === null ? null : Instant::iso(now()->addDays($days)->format('Y-m-d H:i:s'));
    }

    /** Its place in the order of what was done. */
    public function done(): int
    {
        return $this->redone_as ?? $this->seq;
    }

    /** Until when it can be undone, as an instant; null where it cannot. */
    public function undoUntil(): ?CarbonImmutable
    {
        return $this->undone_at !== null ? null : $this->openUntil();
    }

    /** Until when what was undone can be done again, as an instant; null where it was not undone, or cannot. */
    public function redoUntil(): ?CarbonImmutable
    {
        return $this->undone_at === null ? null : $this->openUntil();
    }

    private function openUntil(): ?CarbonImmutable
    {
        $days = $this->action()->undoDays();

        return $days === null || $this->changes_count === 0 || $this->cleared_at !== null
            ? null
            : CarbonImmutable::parse($this->made_at, 'UTC')->addDays($days);
    }

    /** @var array<string, string> */
    protected $casts = ['tallies' => 'array', 'kept' => 'array'];
}
