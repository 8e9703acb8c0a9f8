<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A year of one school: planned, current or closed.
 *
 * @property string $id
 * @property int $version
 * @property string $school_id
 * @property string $name
 * @property string $begins_on
 * @property string $ends_on
 * @property string $state
 */
final class SchoolYear extends Model
{
    use WrittenByLedger;

    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'school_years';

    protected $keyType = 'string';

    protected $guarded = [];
}
