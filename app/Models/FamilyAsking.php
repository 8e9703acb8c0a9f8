<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/**
 * A guardian who came without a letter, and what they wrote of a child. No record of the school: whoever wrote it may
 * have made it up, and it becomes a guardian request once a coordinator has found the child.
 *
 * @property string $id
 * @property string $school_id
 * @property string|null $person_id the account they asked from
 * @property string $given_name
 * @property string $family_name
 * @property string $email
 * @property string|null $phone
 * @property string $child_given
 * @property string $child_family
 * @property string $child_birth_date YYYY-MM-DD
 * @property string $state waiting or refused
 * @property string|null $reason
 * @property string|null $claim_id the guardian request it became; where that has been undone since, it waits again
 * @property string $made_at
 * @property string|null $answered_at
 * @property string|null $answered_by
 */
final class FamilyAsking extends Model
{
    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'family_askings';

    protected $keyType = 'string';

    protected $guarded = [];

    /** Those whose child is still to be found. */
    public static function waiting(): Builder
    {
        return DB::table('family_askings as f')
            ->leftJoin('guardian_claims as made', 'made.id', '=', 'f.claim_id')
            ->where('f.state', 'waiting')
            ->whereNull('made.id');
    }
}
