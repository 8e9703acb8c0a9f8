<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

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
 */
final class LedgerEntry extends Model
{
    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'ledger_entries';

    protected $keyType = 'string';

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['tallies' => 'array', 'kept' => 'array'];
}
