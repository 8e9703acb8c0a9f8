<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * Something with secrets on it that was printed: on its way, or kept sealed for a day for whoever printed it.
 *
 * @property string $id
 * @property string $school_id
 * @property string|null $section_id where it was printed from a section's page
 * @property string $person_id who printed it
 * @property string $what
 * @property PrintState $state
 * @property int $done
 * @property int $total
 * @property string|null $problem why it failed, for whoever printed it
 * @property string|null $field what the problem is about
 * @property string|null $sealed the PDF, encrypted
 * @property string $made_at
 * @property string $expires_at
 */
final class PrintRun extends Model
{
    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'print_runs';

    protected $keyType = 'string';

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['state' => PrintState::class];
}
