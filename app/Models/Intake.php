<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * One list brought in, from the upload to the ledger.
 *
 * @property string $id
 * @property string $school_id
 * @property string|null $actor_id
 * @property string $title
 * @property list<array{file: string, title: string}> $files
 * @property string|null $content_hash
 * @property IntakeState $state
 * @property string|null $everyone
 * @property string $confirmed
 * @property string|null $message
 * @property array<string, string> $answers
 * @property array<string, mixed>|null $layout
 * @property array<string, mixed>|null $summary
 * @property string|null $fingerprint
 * @property int $round
 * @property int $done
 * @property int $total
 * @property string|null $planned_on day at the school the plan was made for
 * @property int|null $entry_seq
 * @property string $made_at
 * @property string $changed_at
 */
final class Intake extends Model
{
    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'imports';

    protected $keyType = 'string';

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = [
        'state' => IntakeState::class,
        'files' => 'array',
        'answers' => 'array',
        'layout' => 'array',
        'summary' => 'array',
    ];
}
