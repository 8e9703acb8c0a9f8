<?php

declare(strict_types=1);

namespace Database\Seeders;

use Illuminate\Support\Carbon;
use Vantrel\Core\Codes\Token;

/** What sections and schools of the demo say to students and families, around the day it is made. */
trait DemoNotices
{
    private function notices(): void
    {
        $day = fn(int $days): string => Carbon::now()->addDays($days)->format('Y-m-d');
        $heron = $this->sections['primary']['3 Heron'];
        $this->notice($heron, 'notice', 'Bring boots and a raincoat this week', -2, null, [
            'body' => 'We plant bulbs behind the school, in whatever weather there is.',
            'texts' => json_encode(
                ['fr' => ['title' => 'Apportez bottes et imperméable cette semaine', 'body' => '']],
                JSON_UNESCAPED_UNICODE,
            ),
        ]);
        $this->notice($heron, 'date', 'Museum of boats, back at three', -5, $day(9));
        $this->notice($heron, 'work', 'Reading log, ten pages a day', -6, $day(6));
        $work = $this->notice($heron, 'work', 'Map of the harbor', -16, $day(-3), [
            'gone_through_at' => Carbon::now()->subDays(2),
        ]);
        $this->notice(null, 'date', 'No school: teachers’ day', -8, $day(16));
        // Of whom the sign-in is printed at the start, and of a few others.
        $known = $this->ids->for('student', 'demo');
        foreach ($this->rows['enrollments'] as $n => $row) {
            if ($row['section_id'] === $heron && $row['role'] === 'student') {
                $this->add('work_results', [
                    'id' => $this->ids->for('result', $work, $row['person_id']),
                    'version' => 0,
                    'notice_id' => $work,
                    'person_id' => $row['person_id'],
                    'state' => $row['person_id'] === $known || $n % 7 === 0 ? 'missing' : 'done',
                ]);
            }
        }
    }

    /**
     * @param  string|null  $section null for the whole of the primary school
     * @param  int  $made days from now
     * @param  array<string, mixed>  $more
     * @return string its id
     */
    private function notice(
        ?string $section,
        string $kind,
        string $title,
        int $made,
        ?string $on,
        array $more = [],
    ): string {
        $id = $this->ids->for('notice', $title);
        $this->add('notices', [
            'id' => $id,
            'version' => 0,
            'school_id' => $this->ids->for('school', 'primary'),
            'section_id' => $section,
            'kind' => $kind,
            'readers' => 'all',
            'title' => $title,
            'body' => null,
            'on_day' => $on,
            'texts' => null,
            'state' => 'live',
            'gone_through_at' => null,
            'made_by' => $this->staff['primary'][$section === null ? 0 : 1],
            'made_at' => Carbon::now()->addDays($made),
            ...$more,
        ]);

        return $id;
    }

    /** Families and students asked into 3 Heron by mail, as far as each has come. */
    private function invitedByMail(): void
    {
        $heron = $this->sections['primary']['3 Heron'];
        $in = null;
        foreach ($this->rows['enrollments'] as $row) {
            $in ??= $row['section_id'] === $heron && $row['role'] === 'student' ? $row['person_id'] : null;
        }
        foreach (
            [
                ['tove.ravnkilde@shoremail.example', 'family', 'invited', 1, true],
                ['isolde.quill@harborpost.example', 'family', 'invited', 1, false],
                ['the.ostrowskis@tidewire.example', 'family', 'declined', 6, true],
                ['rafe.lindqvist@lanternfield.example', 'student', 'came', 8, true],
                ['mika.sandoval@shoremail.example', 'family', 'invited', 30, false],
                ['wrong.address@shoremail.example', 'family', 'withdrawn', 9, false],
            ]
            as [$address, $reader, $state, $ago, $opened]
        ) {
            $id = $this->ids->for('student-invitation', $address);
            $this->add('student_invitations', [
                'id' => $id,
                'version' => 0,
                'section_id' => $heron,
                'person_id' => $state === 'came' ? $in : null,
                'guardian_id' => null,
                'join_request_id' => null,
                'email' => $address,
                'typed' => $address,
                'reader' => $reader,
                'language' => 'en',
                'token_hash' => Token::draw($this->kit->random("demo student invitation $address"))->hash(),
                'state' => $state,
                'sent_at' => Carbon::now()->subDays($ago),
                'expires_at' => Carbon::now()->addDays(14 - $ago),
                'answered_at' => $state === 'invited' ? null : Carbon::now()->subDays($ago - 1),
                'invited_by' => $this->staff['primary'][1],
            ]);
            if ($opened) {
                $this->add('student_invitations_opened', [
                    'invitation_id' => $id,
                    'opened_at' => Carbon::now()->subDays($ago)->addHours(3),
                ]);
            }
        }
    }
}
