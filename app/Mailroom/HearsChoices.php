<?php

declare(strict_types=1);

namespace App\Mailroom;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Guardians\Hears;

/**
 * How often a guardian hears, and at what hour of the school's clock; unsaid, it is as the core has it. Who wanted no
 * more and was merged since wants no more, until they say otherwise.
 */
final readonly class HearsChoices
{
    private function __construct(public Hears $often, public int $hour) {}

    public static function of(string $personId): self
    {
        $row = DB::table('digest_choices')
            ->where('person_id', $personId)
            ->first(['often', 'at_hour']);
        $often = match (true) {
            $row !== null => Hears::from((string) $row->often),
            self::offAs(DB::query())->where('earlier.merged_into', $personId)->exists() => Hears::Off,
            default => Hears::UNSAID,
        };

        return new self($often, (int) ($row->at_hour ?? Hears::HOUR));
    }

    /** Accounts as which somebody wanted no more; for `earlier.merged_into` to be compared with who they are now. */
    public static function offAs(Builder $query): Builder
    {
        return $query
            ->from('people as earlier')
            ->join('digest_choices as said', 'said.person_id', '=', 'earlier.id')
            ->where('said.often', Hears::Off->value);
    }

    /** @param  int|null  $hour null to leave it as it is */
    public static function choose(string $personId, Hears $often, ?int $hour): void
    {
        DB::table('digest_choices')->upsert(
            ['person_id' => $personId, 'often' => $often->value, 'at_hour' => $hour ?? Hears::HOUR],
            ['person_id'],
            $hour === null ? ['often'] : ['often', 'at_hour'],
        );
    }
}
