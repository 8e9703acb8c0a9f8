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
 * @property string|null $pulled_at of the last pull that was not of one student
 * @property string|null $settled_at until when all that came had been applied before that
 * @property string|null $list_id the list it became; null where nothing of it waits
 * @property string|null $pulled_whole_at
 * @property string|null $said what came of the last pull
 * @property string|null $asking what it is asked for in the background: whole or changes
 * @property string|null $asking_since
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
