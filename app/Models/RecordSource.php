<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * Where a school's record is asked for by OneRoster, and inside which limits that may be done with nobody looking.
 *
 * @property string $school_id
 * @property string $base_url
 * @property string $token_url
 * @property string $client_id
 * @property string $sealed_key the secret, encrypted
 * @property int $nightly
 * @property int $most_new students a night may add
 * @property int $most_changed students a night may change
 * @property string|null $pulled_at since when changes are asked for the next time
 * @property string|null $pulled_whole_at
 * @property string|null $said what came of the last pull
 * @property string $changed_at
 * @property string|null $changed_by
 */
final class RecordSource extends Model
{
    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'record_sources';

    protected $primaryKey = 'school_id';

    protected $keyType = 'string';

    protected $guarded = [];
}
