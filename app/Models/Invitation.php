<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * An invitation to teach a section.
 *
 * @property string $id
 * @property int $version
 * @property string $section_id
 * @property string|null $person_id
 * @property string $email
 * @property string $role
 * @property string|null $begins_on
 * @property string|null $ends_on
 * @property string $state
 * @property string $token_hash
 * @property string $sent_at
 * @property string $expires_at
 * @property string|null $answered_at
 * @property string $invited_by
 */
final class Invitation extends Model
{
    use WrittenByLedger;

    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'invitations';

    protected $keyType = 'string';

    protected $guarded = [];

    protected $hidden = ['token_hash'];
}
