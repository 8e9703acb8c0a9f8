<?php

declare(strict_types=1);

namespace Database\Seeders;

use DateTimeImmutable;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Crypt;
use Symfony\Component\Uid\Ulid;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Values\GradeLevel;

/** What the demo shows on purpose: doubles, twins and namesakes, students without a section, invitations, newcomers. */
trait DemoCases
{
    /** What a coordinator finds on an ordinary day in August. */
    private function planted(): void
    {
        $this->doubles();
        $this->twinsAndNamesakes();
        $this->unplaced();
        $this->invitations();
        $this->newcomers();
        // A guardian who can sign in, connected to two children.
        $guardian = $this->ids->for('guardian', 'demo');
        $school = $this->ids->for('school', 'primary');
        $this->person($guardian, $school, 'guardian', 'Hélène', 'Marchetti', [
            'email' => 'helene.marchetti@shoremail.example',
            'email_state' => 'confirmed',
            'email_by' => 'mail',
            'phone' => '+12025550142',
        ]);
        $this->add('sign_ins', [
            'id' => $this->ids->for('sign-in', $guardian),
            'version' => 0,
            'person_id' => $guardian,
            'user_name' => 'helene.marchetti@shoremail.example',
            'passphrase' => null,
            'password' => $this->staffHash,
            'last_signed_in_at' => null,
        ]);
        $this->link($this->students['primary.3.0']['id'], $guardian, 'connected');
        $this->link($this->students['primary.1.4']['id'], $guardian, 'connected');
        // One student whose passphrase is printed with the demo sign-ins.
        $student = $this->ids->for('student', 'demo');
        $this->person($student, $school, 'student', 'Wilhelmina', 'Seabright', [
            'birth_date' => '2018-02-11',
            'number' => '019001',
            'grade' => '03',
        ]);
        $signIn = $this->ids->for('sign-in', $student);
        $this->add('sign_ins', [
            'id' => $signIn,
            'version' => 0,
            'person_id' => $student,
            'user_name' => 'wilhelmina.seabright',
            'passphrase' => Crypt::encryptString('maple otter candy'),
            'password' => null,
            'last_signed_in_at' => '2026-08-21 13:30:00',
        ]);
        $this->enroll($this->sections['primary']['3 Heron'], $student, 'student');
        $this->link($student, $guardian, 'connected');
        $this->changedSchool();
    }

    /** 23 pairs of accounts of one child, of every kind. */
    private function doubles(): void
    {
        $n = 0;
        foreach (['primary' => 12, 'middle' => 6, 'upper' => 5] as $key => $count) {
            for ($i = 0; $i < $count; $i++, $n++) {
                [, $low, $high] = self::SCHOOLS[$key];
                $grade = $low + ($i % max(1, $high - $low + 1));
                $of = $this->students["$key.$grade." . (20 + $i)];
                [$given, $family, $born] = match ($n % 4) {
                    // Registered by themselves: the name as it is, nothing else.
                    0 => [$of['given'], $of['family'], null],
                    // Day and month turned on the form.
                    1 => [
                        $of['given'],
                        $of['family'],
                        substr($of['born'], 0, 5) . substr($of['born'], 8, 2) . '-' . substr($of['born'], 5, 2),
                    ],
                    // Typed without accents and hyphens, in another case.
                    2 => [$this->plain($of['given']), $this->plain($of['family']), $of['born']],
                    // Given and family name in each other's place.
                    default => [$of['family'], $of['given'], $of['born']],
                };
                if (
                    $born !== null &&
                    !checkdate((int) substr($born, 5, 2), (int) substr($born, 8, 2), (int) substr($born, 0, 4))
                ) {
                    $born = $of['born'];
                }
                $id = $this->ids->for('double', (string) $n);
                $this->person($id, $of['school'], 'student', $given, $family, [
                    'birth_date' => $born,
                    'grade' => GradeLevel::of($grade)->code(),
                ]);
                $this->signIn($id, $given, $family, false, true);
                $names = array_values($this->sections[$key]);
                $this->enroll($names[count($names) - 1 - ($i % 3)], $id, 'student', 'code');
            }
        }
    }

    /** 9 pairs that are alike and are two children: 5 pairs of twins, 4 of namesakes. */
    private function twinsAndNamesakes(): void
    {
        for ($i = 0; $i < 9; $i++) {
            $grade = $i % 6;
            $of = $this->students["primary.$grade." . (50 + $i)];
            $twin = $i < 5;
            $id = $this->ids->for('alike', (string) $i);
            $given = $twin ? DemoNames::GIVEN[($i * 7 + 3) % 100] : $of['given'];
            $born = $twin
                ? $of['born']
                : substr($of['born'], 0, 4) .
                    '-' .
                    ($of['born'] > substr($of['born'], 0, 4) . '-06' ? '02-14' : '11-03');
            $this->person($id, $of['school'], 'student', $given, $of['family'], [
                'birth_date' => $born,
                'number' => sprintf('%06d', $this->number++),
                'grade' => GradeLevel::of($grade)->code(),
            ]);
            $this->signIn($id, $given, $of['family'], true, true);
            $this->enroll(
                $this->sections['primary'][GradeLevel::of($grade)->short() . ' ' . DemoNames::BIRDS[($i + 1) % 4]],
                $id,
                'student',
            );
        }
    }

    /** 3 children whom the middle school has taken in as new, while the primary school still has them. */
    private function changedSchool(): void
    {
        for ($i = 0; $i < 3; $i++) {
            $of = $this->students['primary.5.' . (40 + $i)];
            $id = $this->ids->for('changed school', (string) $i);
            $given = $i === 1 ? $this->plain($of['given']) : $of['given'];
            $this->person($id, $this->ids->for('school', 'middle'), 'student', $given, $of['family'], [
                'birth_date' => $of['born'],
                'number' => sprintf('%06d', $this->number++),
                'grade' => '06',
            ]);
            $this->signIn($id, $given, $of['family'], false, true);
            $section = $this->sections['middle']['6 ' . DemoNames::BIRDS[$i]];
            $this->enroll($section, $id, 'student', begins: now()->subDays(10)->format('Y-m-d'));
        }
    }

    /** 9 students in no section. */
    private function unplaced(): void
    {
        foreach (['primary' => 4, 'middle' => 3, 'upper' => 2] as $key => $count) {
            for ($i = 0; $i < $count; $i++) {
                $id = $this->ids->for('unplaced', $key, (string) $i);
                $given = DemoNames::GIVEN[($i * 13 + 41) % 100];
                $family = DemoNames::FAMILY[($i * 17 + strlen($key)) % 120];
                $this->person($id, $this->ids->for('school', $key), 'student', $given, $family, [
                    'number' => sprintf('%06d', $this->number++),
                    'grade' => GradeLevel::of(self::SCHOOLS[$key][1] + $i)->code(),
                ]);
                $this->signIn($id, $given, $family, false, false);
            }
        }
    }

    /** 11 invitations in all states, their mails in the Mailroom. */
    private function invitations(): void
    {
        /** @var list<array{string, string, string}> $states */
        $states = [
            ['primary', 'invited', '2026-11-20'],
            ['primary', 'invited', '2026-11-21'],
            ['primary', 'accepted', '2026-08-14'],
            ['primary', 'declined', '2026-08-14'],
            ['primary', 'invited', '2026-08-01'],
            ['middle', 'invited', '2026-11-19'],
            ['middle', 'withdrawn', '2026-08-12'],
            ['middle', 'invited', '2026-08-02'],
            ['upper', 'invited', '2026-11-22'],
            ['upper', 'accepted', '2026-08-15'],
            ['upper', 'declined', '2026-08-16'],
        ];
        foreach ($states as $i => [$key, $state, $sent]) {
            $names = array_keys($this->sections[$key]);
            $name = $names[2 + ($i % 8)];
            $section = $this->sections[$key][$name];
            $staff = $this->staff[$key][8 + $i];
            $mail = '';
            foreach ($this->rows['people'] as $person) {
                $mail = $person['id'] === $staff ? (string) $person['email'] : $mail;
            }
            $role = $i % 3 === 2 ? 'assistant' : 'co_teacher';
            $open = $state === 'invited' && $sent > '2026-09';
            // Open ones stay open for two weeks from the day the demo is made.
            $sentAt = $open
                ? now()
                        ->subDays(3 + ($i % 4))
                        ->format('Y-m-d') . ' 15:00:00'
                : "$sent 15:00:00";
            $this->add('invitations', [
                'id' => $this->ids->for('invitation', (string) $i),
                'version' => 0,
                'section_id' => $section,
                'person_id' => $state === 'accepted' ? $staff : null,
                'email' => $mail,
                'role' => $role,
                'state' => $state,
                'token_hash' => Token::draw($this->kit->random("demo invitation $i"))->hash(),
                'sent_at' => $sentAt,
                'expires_at' => $open
                    ? now()->addDays(9)->format('Y-m-d') . ' 15:00:00'
                    : Carbon::parse($sent)->addDays(14)->format('Y-m-d') . ' 15:00:00',
                'answered_at' =>
                    $state === 'invited' ? null : Carbon::parse($sent)->addDays(2)->format('Y-m-d') . ' 09:00:00',
                'invited_by' => $this->staff[$key][0],
            ]);
            if ($state === 'accepted') {
                $this->enroll($section, $staff, $role, 'invitation');
            }
            $label = str_replace('_', '-', $role);
            // The Mailroom goes by the time in the id.
            $this->add('outgoing_messages', [
                'id' =>
                    substr(Ulid::generate(new DateTimeImmutable($sentAt)), 0, 10) .
                    substr($this->ids->for('message', (string) $i), 10),
                'school_id' => $this->ids->for('school', $key),
                'to_address' => $mail,
                'subject' => "An invitation into $name",
                'text' =>
                    "You are asked to be $label of $name at " .
                    self::SCHOOLS[$key][0] .
                    ".\n\n" .
                    'The link of this message was made with the demo and is not kept; send the invitation ' .
                    "again to get one that works.\n",
                'html' => null,
                'made_at' => $sentAt,
            ]);
        }
    }

    /** 5 newcomers at the door, one of them known to the Roll under a name typed otherwise. */
    private function newcomers(): void
    {
        $known = $this->students['primary.3.9'];
        $asking = [
            ['primary', '3 Heron', $known['given'], $this->plain($known['family']), $known['born']],
            ['primary', '3 Heron', 'Zinnia', 'Fairweather', '2018-04-19'],
            ['primary', 'Harbor choir', 'Ottoline', 'Marsh', '2016-09-02'],
            ['middle', '7 Heron', 'Caspian', 'Thackeray', '2013-12-05'],
            ['upper', '10 Heron', 'Isolde', 'Penhaligon', '2010-03-27'],
        ];
        foreach ($asking as $i => [$key, $name, $given, $family, $born]) {
            $section = $this->sections[$key][$name];
            $this->add('join_requests', [
                'id' => $this->ids->for('newcomer', (string) $i),
                'section_id' => $section,
                'join_code_id' => $this->ids->for('code', $section),
                'state' => 'waiting',
                'cause' => $born > '2013-11-23' ? 'under_13' : 'newcomer',
                'given_name' => $given,
                'family_name' => $family,
                'birth_date' => $born,
                'password' => $this->staffHash,
                'made_at' => now()
                    ->subHours(3 + 7 * $i)
                    ->format('Y-m-d H:i:s'),
            ]);
        }
    }
}
