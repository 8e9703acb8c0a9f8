<?php

declare(strict_types=1);

namespace App\Models;

use App\Platform\SchoolDay;
use Illuminate\Database\Eloquent\Model;

/**
 * A school of the district, with its grades by order (-1 PK, 0 KG, then the number).
 *
 * @property string $id
 * @property string $code
 * @property string $name
 * @property int $lowest_grade
 * @property int $highest_grade
 * @property list<string> $mail_domains
 * @property string $time_zone
 * @property string $country
 * @property string $naming_pattern
 * @property string $sign_in_policy
 * @property int $stay_days_shared
 * @property int $stay_days_own
 * @property int $outside_staff
 * @property string $newcomer_check
 * @property int $newcomer_mail
 * @property string $under_13
 * @property string $second_factor
 * @property int $keep_askings_days
 * @property int $keep_lists_days
 * @property int $keep_messages_days
 * @property int $keep_ledger_days
 * @property string $name_shown
 * @property string $user_names_from
 * @property string $day_opens
 * @property string $day_closes
 * @property string $guardians_in
 * @property int $quiet_from hour from which no letter to many goes out
 * @property int $quiet_to hour until which
 * @property int $remind_guardians
 */
final class School extends Model
{
    use WrittenByLedger;

    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'schools';

    protected $keyType = 'string';

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['mail_domains' => 'array'];

    protected static function booted(): void
    {
        // Whatever is asked of a school asks what day it is there.
        self::retrieved(function (self $school): void {
            if (isset($school->time_zone)) {
                SchoolDay::know($school->id, $school->time_zone);
            }
        });
    }
}
