<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A class of one year: a homeroom or a taught class.
 *
 * @property string $id
 * @property int $version
 * @property string $school_id
 * @property string $school_year_id
 * @property string $name
 * @property string $kind
 * @property string|null $grade
 * @property string|null $period
 * @property int|null $seats
 * @property string $state
 * @property string|null $archived_on
 * @property string|null $carried_from
 */
final class Section extends Model
{
    use WrittenByLedger;

    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'sections';

    protected $keyType = 'string';

    protected $guarded = [];
}
