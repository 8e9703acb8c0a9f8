<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A user name with its secrets. A person may have several, after a merge.
 *
 * @property string $id
 * @property int $version
 * @property string $person_id
 * @property string $user_name
 * @property string|null $passphrase
 * @property string|null $password
 * @property int $temporary whether somebody else set the password, to be changed at the first sign-in
 * @property string|null $last_signed_in_at
 */
final class SignIn extends Model
{
    use WrittenByLedger;

    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'sign_ins';

    protected $keyType = 'string';

    protected $guarded = [];

    protected $hidden = ['passphrase', 'password'];
}
