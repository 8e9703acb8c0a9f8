<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A message as it left, kept in the Mailroom.
 *
 * @property string $id
 * @property string|null $school_id
 * @property string $to_address
 * @property string $subject
 * @property string $text
 * @property string|null $html
 * @property string $made_at
 */
final class OutgoingMessage extends Model
{
    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'outgoing_messages';

    protected $keyType = 'string';

    protected $guarded = [];
}
