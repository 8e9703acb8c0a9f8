<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * What a program of the school shows to read its rosters: an id and a secret, of which the hash is kept.
 *
 * @property string $id what the program calls itself
 * @property string $school_id
 * @property string $name
 * @property string $secret_hash
 * @property list<string> $scopes
 * @property string $made_at
 * @property string $made_by
 * @property string|null $last_used_at
 * @property string|null $last_used_for
 * @property string|null $ended_at
 * @property string|null $ended_by
 */
final class RosterKey extends Model
{
    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'roster_keys';

    protected $keyType = 'string';

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['scopes' => 'array'];
}
