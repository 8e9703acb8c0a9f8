<?php

declare(strict_types=1);

namespace Database\Seeders;

use Illuminate\Support\Facades\Crypt;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Names\NameKey;

/** The records of the demo, as {@see DemoDistrict} collects them. */
trait DemoRows
{
    private function signIn(string $personId, string $given, string $family, bool $carded, bool $opened): void
    {
        $id = $this->ids->for('sign-in', $personId);
        $this->add('sign_ins', [
            'id' => $id,
            'version' => 0,
            'person_id' => $personId,
            'user_name' => $this->userNames->give($given, $family),
            'passphrase' => $carded ? Crypt::encryptString($this->phrases->draw()) : null,
            'password' => null,
            'last_signed_in_at' => $opened
                ? '2026-08-' . $this->random->getInt(18, 21) . ' 13:' . $this->random->getInt(10, 59) . ':00'
                : null,
        ]);
        if ($carded) {
            $token = Token::draw($this->kit->random("demo badge $id"));
            $this->add('badges', [
                'id' => $this->ids->for('badge', $id),
                'version' => 0,
                'sign_in_id' => $id,
                'token_hash' => $token->hash(),
                'state' => 'live',
                'made_at' => '2026-08-17 15:00:00',
                'ended_at' => null,
            ]);
        }
    }

    private function guardian(string $school, string $family, bool $reachable): string
    {
        $n = ++$this->guardians;
        $id = $this->ids->for('guardian', (string) $n);
        $given = $this->pick(DemoNames::GIVEN);
        $address =
            str_replace(' ', '.', NameKey::of("$given $family")) .
            $n .
            '@' .
            ['shoremail', 'harborpost', 'tidewire'][$n % 3] .
            '.example';
        $this->person($id, $school, 'guardian', $given, $family, [
            'email' => $reachable || $n % 2 === 0 ? $address : null,
            'phone' => $n % 100 < 70 ? sprintf('+1202555%04d', 100 + ($n % 100)) : null,
            // Two in five are written to in another language than English.
            'language' => ['es', 'en', 'en', 'ar', 'en', 'vi', 'en', 'uk', 'en', 'zh', 'en', 'fr', 'so'][$n % 13],
        ]);

        return $id;
    }

    private function link(string $student, string $guardian, string $state): void
    {
        $this->add('guardianships', [
            'id' => $this->ids->for('guardianship', $student, $guardian),
            'version' => 0,
            'student_id' => $student,
            'guardian_id' => $guardian,
            'relationship' => null,
            'state' => $state,
            'restriction' => null,
        ]);
    }

    /** @param  array<string, string|null>  $more */
    private function person(string $id, string $school, string $kind, string $given, string $family, array $more): void
    {
        $this->add('people', [
            'id' => $id,
            'version' => 0,
            'school_id' => $school,
            'kind' => $kind,
            'given_name' => $given,
            'family_name' => $family,
            'search_name' => NameKey::of("$given $family"),
            'birth_date' => null,
            'number' => null,
            'grade' => null,
            'email' => null,
            'email_state' => 'claimed',
            'email_by' => isset($more['email']) ? 'list' : null,
            'email_at' => isset($more['email']) ? self::TODAY . ' 08:00:00' : null,
            'phone' => null,
            'language' => null,
            'state' => 'active',
            'merged_into' => null,
            ...$more,
        ]);
    }

    private function enroll(
        string $section,
        string $person,
        string $role,
        string $source = 'list',
        string $begins = self::TODAY,
    ): void {
        $this->add('enrollments', [
            'id' => $this->ids->for('enrollment', $section, $person),
            'version' => 0,
            'section_id' => $section,
            'person_id' => $person,
            'role' => $role,
            'begins_on' => $begins,
            'ends_on' => null,
            'source' => $source,
        ]);
    }

    private function plain(string $name): string
    {
        return ucwords(NameKey::of($name));
    }

    /** @param  list<string>  $from */
    private function pick(array $from): string
    {
        return $from[$this->random->getInt(0, count($from) - 1)];
    }

    /** @param  array<string, mixed>  $row */
    private function add(string $table, array $row): void
    {
        $this->rows[$table][] = $row;
    }
}
