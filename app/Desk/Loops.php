<?php

declare(strict_types=1);

namespace App\Desk;

use App\Desk\Views\Loop;
use App\Guardians\GuardianList;
use App\LookAlikes\Kept;
use App\Mailroom\MessageDesk;
use App\Models\School;
use App\Platform\SchoolDay;
use App\Roll\KeptProblems;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use LogicException;

/** All that can wait at a school, counted. */
final class Loops
{
    /**
     * In the order of the work: the area, title and detail where one waits and where several do, and where to work on
     * it.
     */
    private const KINDS = [
        'intakes' => [
            'intake',
            ['List waiting to be applied', 'planned, not yet applied'],
            ['Lists waiting to be applied', 'planned, not yet applied'],
            'intake',
        ],
        'requests' => [
            'sections',
            ['Newcomer at the door', 'waits to be let into a section'],
            ['Newcomers at the door', 'wait to be let into a section'],
            'sections?state=waiting',
        ],
        'transfers' => [
            'roll',
            ['Request of another school', 'about a student of this one'],
            ['Requests of other schools', 'about students of this one'],
            'transfers',
        ],
        'claims' => [
            'guardians',
            ['Guardian request', 'asks to be connected; waits to be checked'],
            ['Guardian requests', 'ask to be connected; wait to be checked'],
            'guardians/requests',
        ],
        'held' => [
            'guardians',
            ['Guardian who asks what is held about a child', 'look at it, and give it or not'],
            ['Guardians who ask what is held about a child', 'look at it, and give it or not'],
            'guardians/requests',
        ],
        'mail' => [
            'mailroom',
            ['Message that did not arrive', 'refused, come back or late; another address, or once more'],
            ['Messages that did not arrive', 'refused, come back or late; other addresses, or once more'],
            'mailroom?show=amiss',
        ],
        'guardians_unanswered' => [
            'guardians',
            ['Guardian who has not answered', 'reminded a week ago; try another address, a letter, a call'],
            ['Guardians who have not answered', 'reminded a week ago; try other addresses, letters, a call'],
            'guardians?standing=unanswered',
        ],
        'invitations_expired' => [
            'sections',
            ['Invitation expired', 'nobody answered; send again or withdraw'],
            ['Invitations expired', 'nobody answered; send again or withdraw'],
            'sections',
        ],
        'invitations' => [
            'sections',
            ['Invitation unanswered', 'sent, no answer yet'],
            ['Invitations unanswered', 'sent, no answer yet'],
            'sections',
        ],
        'look_alikes' => [
            'look-alikes',
            ['Look-alike', 'two accounts that may be one person'],
            ['Look-alikes', 'accounts that may be one person'],
            'look-alikes',
        ],
        'unplaced' => [
            'roll',
            ['Unplaced student', 'in no open section'],
            ['Unplaced students', 'in no open section'],
            'roll?kind=student&problem=unplaced',
        ],
        'no_lead' => [
            'sections',
            ['Section without a lead', 'nobody leads it'],
            ['Sections without a lead', 'nobody leads them'],
            'sections?state=no_lead',
        ],
        'under_13_unreached' => [
            'roll',
            ['Child under 13 without a guardian to reach', 'no guardian with an address or a telephone'],
            ['Children under 13 without a guardian to reach', 'no guardian with an address or a telephone'],
            'roll?kind=student&problem=under_13_unreached',
        ],
        'no_card' => [
            'print-room',
            ['Student without a card', 'no login card printed yet'],
            ['Students without a card', 'no login card printed yet'],
            'print-room',
        ],
        'never_signed_in' => [
            'roll',
            ['Account never opened', 'a student who has not signed in'],
            ['Accounts never opened', 'students who have not signed in'],
            'roll?kind=student&problem=never_signed_in',
        ],
        'no_guardian' => [
            'roll',
            ['Student without a guardian', 'no contact on record'],
            ['Students without a guardian', 'no contact on record'],
            'roll?kind=student&problem=no_guardian',
        ],
        'card_lost' => [
            'print-room',
            ['Card lost', 'a student without another one'],
            ['Cards lost', 'students without another one'],
            'roll?kind=student&problem=card_lost',
        ],
        'number_twice' => [
            'roll',
            ['Number twice', 'but for zeros before it, another student has it too'],
            ['Numbers twice', 'but for zeros before them, another student has them too'],
            'roll?kind=student&problem=number_twice',
        ],
        'grade_unlike_age' => [
            'roll',
            ['Grade unlike the age', 'a wrong birth date, or a wrong grade'],
            ['Grades unlike the age', 'wrong birth dates, or wrong grades'],
            'roll?kind=student&problem=grade_unlike_age',
        ],
        'left_enrolled' => [
            'roll',
            ['Student who left and is still in a section', 'take them off, or have them back'],
            ['Students who left and are still in a section', 'take them off, or have them back'],
            'roll?kind=student&problem=left_enrolled',
        ],
    ];

    public function __construct(private readonly KeptProblems $problems) {}

    /** @return list<Loop> in the order of the work, those of which there is nothing too */
    public function of(School $school): array
    {
        $loops = [];
        foreach ($this->counts($school) as $key => [$count, $since]) {
            $loops[] = self::loop($key, $count, $since);
        }

        return $loops;
    }

    /** What is said of so many of a kind. */
    public static function loop(string $key, int $count, ?string $since): Loop
    {
        [$area, $one, $many, $path] = self::KINDS[$key];
        [$title, $detail] = $count === 1 ? $one : $many;

        return new Loop($key, $area, $title, $detail, $count, $since, $path);
    }

    /**
     * How many of each kind, and since when, in the order of the work.
     *
     * @return array<key-of<self::KINDS>, array{int, string|null}>
     */
    private function counts(School $school): array
    {
        $found = $this->problems->standing($school->id);
        foreach ($this->waiting($school)->get() as $of) {
            $found[(string) $of->loop] = [
                (int) $of->n,
                $of->since === null ? null : substr((string) $of->since, 0, 10),
            ];
        }
        $counts = [];
        foreach (array_keys(self::KINDS) as $key) {
            $counts[$key] = $found[$key] ?? [0, null];
        }

        return $counts;
    }

    /** Of all that waits, besides what is amiss with accounts: loop, how many, and the first instant; one statement. */
    private function waiting(School $school): Builder
    {
        $all = null;
        foreach (self::waits($school) as $loop => [$query, $instant]) {
            $counted = $query->selectRaw("? AS `loop`, COUNT(*) AS n, $instant AS since", [$loop]);
            $all = $all?->unionAll($counted) ?? $counted;
        }

        return $all ?? throw new LogicException('Nothing waits anywhere.');
    }

    /** @return array<key-of<self::KINDS>, array{Builder, literal-string}> what waits, and since when the first of it */
    private static function waits(School $school): array
    {
        $now = now()->format('Y-m-d H:i:s');
        $invitations = fn(string $compare): Builder => DB::table('invitations as i')
            ->join('sections as s', 's.id', '=', 'i.section_id')
            ->where('s.school_id', $school->id)
            ->where('i.state', 'invited')
            ->where('i.expires_at', $compare, $now);

        return [
            'intakes' => [
                DB::table('imports')
                    ->where('school_id', $school->id)
                    ->whereIn('state', ['planned', 'unreadable']),
                'MIN(made_at)',
            ],
            'requests' => [
                DB::table('join_requests as r')
                    ->join('sections as s', 's.id', '=', 'r.section_id')
                    ->where('s.school_id', $school->id)
                    ->where('r.state', 'waiting'),
                'MIN(r.made_at)',
            ],
            'transfers' => [
                DB::table('transfer_requests')->where('from_school_id', $school->id)->where('state', 'waiting'),
                'MIN(made_at)',
            ],
            'claims' => [GuardianList::requests($school->id), 'MIN(made_at)'],
            'held' => [
                DB::table('held_askings as h')
                    ->join('people as s', 's.id', '=', 'h.student_id')
                    ->where('s.school_id', $school->id)
                    ->where('h.state', 'waiting'),
                'MIN(h.made_at)',
            ],
            'mail' => [MessageDesk::amissAt($school), 'MIN(made_at)'],
            'guardians_unanswered' => [GuardianList::unanswered($school->id), 'NULL'],
            'invitations_expired' => [$invitations('<='), 'MIN(i.sent_at)'],
            'invitations' => [$invitations('>'), 'MIN(i.sent_at)'],
            'look_alikes' => [Kept::waits($school), 'NULL'],
            'no_lead' => [
                DB::table('sections as s')
                    ->where('s.school_id', $school->id)
                    ->where('s.state', 'open')
                    ->whereNotExists(
                        fn(Builder $q) => $q
                            ->from('enrollments as e')
                            ->whereColumn('e.section_id', 's.id')
                            ->where('e.role', 'lead')
                            ->where(SchoolDay::inForce('e', SchoolDay::today($school->id))),
                    ),
                'NULL',
            ],
        ];
    }
}
