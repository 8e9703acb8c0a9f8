<?php

declare(strict_types=1);

namespace App\Mailroom;

use Illuminate\Support\Facades\DB;
use Vantrel\Core\Guardians\Hears;

/** How often a guardian hears, and at what hour of the school's clock; unsaid, it is as the core has it. */
final readonly class HearsChoices
{
    private function __construct(public Hears $often, public int $hour) {}

    public static function of(string $personId): self
    {
        $row = DB::table('digest_choices')
            ->where('person_id', $personId)
            ->first(['often', 'at_hour']);

        return new self(Hears::tryFrom((string) $row?->often) ?? Hears::UNSAID, (int) ($row->at_hour ?? Hears::HOUR));
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
