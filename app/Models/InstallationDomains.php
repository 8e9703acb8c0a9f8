<?php

declare(strict_types=1);

namespace App\Models;

use App\Platform\Known;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Settings\SchoolSettings;

/** The mail domains of the whole installation: those of any of its schools. */
final class InstallationDomains
{
    /**
     * @param  list<string>  $typed with or without the @
     *
     * @throws Refusal where one is none of the installation's, and not theirs to add
     */
    public function mustBeOurs(array $typed, Person $actor): void
    {
        /** @var list<string> $wished */
        $wished = json_decode(SchoolSettings::domains($typed), true, flags: JSON_THROW_ON_ERROR);
        $schools = School::query()->get(['id', 'mail_domains']);
        SchoolSettings::mustBeOurs(
            $wished,
            array_values(array_unique(array_merge(...$schools->map(fn(School $s): array => $s->mail_domains)->all()))),
            array_diff($schools->pluck('id')->all(), Coordinators::schoolsOf($actor->id)) === [],
            Known::publicMail(),
        );
    }
}
