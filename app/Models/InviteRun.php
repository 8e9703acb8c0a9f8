<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * Many guardians invited in the background, and how far that is.
 *
 * @property string $id
 * @property string $school_id
 * @property string $person_id whoever asked for it
 * @property array<string, mixed> $whom
 * @property PrintState $state
 * @property int $done mails handed over
 * @property int $total
 * @property string|null $said
 * @property string $made_at
 */
final class InviteRun extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $keyType = 'string';

    protected $guarded = [];

    protected $casts = ['whom' => 'array', 'state' => PrintState::class];
}
