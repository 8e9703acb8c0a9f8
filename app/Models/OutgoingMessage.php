<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Mailroom\MessageState;

/**
 * A message, from the moment it is written until it has gone, and after.
 *
 * @property string $id
 * @property string|null $school_id
 * @property string $via mail or text
 * @property MessageKind $kind
 * @property string|null $person_id whom it is for, where that is somebody known
 * @property string $to_address a mail address, or a number in E.164
 * @property string $subject
 * @property string $language a tag
 * @property string $from_name who writes, as the receiver reads it; '' for the installation's own
 * @property string $text
 * @property string|null $html
 * @property string $made_at
 * @property MessageState $state
 * @property int $tries made so far
 * @property string|null $next_at not before
 * @property string|null $claim the worker that has it
 * @property string|null $claimed_until when it is taken from a worker that has not come back
 * @property string|null $sent_at
 * @property string|null $problem why it has not gone, or has come back: a sentence
 * @property string|null $settled_at when a person has looked at what was amiss
 * @property string|null $about_id the invitation it carries the link of
 * @property string|null $mailing_id the letter to many it is one of
 * @property string|null $reply_to
 * @property bool $bare whether what only its receiver may use has been taken out
 */
final class OutgoingMessage extends Model
{
    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'outgoing_messages';

    protected $keyType = 'string';

    protected $guarded = [];

    protected $casts = [
        'kind' => MessageKind::class,
        'state' => MessageState::class,
        'tries' => 'integer',
        'bare' => 'boolean',
    ];
}
