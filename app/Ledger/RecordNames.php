<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\Entity;

/** What records are called: people by name, and what belongs to somebody by whom it belongs to. */
final class RecordNames
{
    /** The kind of a record, in a word or two. */
    public static function kind(Entity $entity): string
    {
        return match ($entity) {
            Entity::School => 'school',
            Entity::SchoolYear => 'school year',
            Entity::Person => 'person',
            Entity::Coordinator => 'coordinator',
            Entity::SignIn => 'user name',
            Entity::Badge => 'card',
            Entity::Identity => 'school sign-on',
            Entity::Section => 'section',
            Entity::JoinCode => 'join code',
            Entity::Enrollment => 'enrollment',
            Entity::Invitation => 'invitation',
            Entity::JoinRequest => 'request',
            Entity::RoomPass => 'room pass',
            Entity::Guardianship => 'guardian',
            Entity::KnownApart => 'told apart',
            Entity::TransferRequest => 'request to a school',
            Entity::LetterWording => 'wording',
            Entity::FamilyLetter => 'family letter',
            Entity::GuardianClaim => 'guardian request',
            Entity::GuardianInvitation => 'guardian invitation',
            Entity::Notice => 'notice',
            Entity::WorkResult => 'handed in',
            Entity::StudentInvitation => 'student invitation',
        };
    }

    /**
     * @param  list<string>  $ids
     * @return array<string, string> id to name, of those that are there
     */
    public static function of(string $table, array $ids): array
    {
        $person = "TRIM(CONCAT(p.given_name, ' ', p.family_name))";
        $query = match ($table) {
            'people' => DB::table('people as p')
                ->whereIn('p.id', $ids)
                ->selectRaw("p.id id, $person n"),
            'sections' => DB::table('sections as s')->whereIn('s.id', $ids)->selectRaw('s.id id, s.name n'),
            'sign_ins' => DB::table('sign_ins as s')->whereIn('s.id', $ids)->selectRaw('s.id id, s.user_name n'),
            'enrollments' => DB::table('enrollments as e')
                ->join('people as p', 'p.id', '=', 'e.person_id')
                ->join('sections as s', 's.id', '=', 'e.section_id')
                ->whereIn('e.id', $ids)
                ->selectRaw("e.id id, CONCAT($person, ' in ', s.name) n"),
            'badges' => DB::table('badges as b')
                ->join('sign_ins as s', 's.id', '=', 'b.sign_in_id')
                ->whereIn('b.id', $ids)
                ->selectRaw('b.id id, s.user_name n'),
            'join_codes' => DB::table('join_codes as c')
                ->join('sections as s', 's.id', '=', 'c.section_id')
                ->whereIn('c.id', $ids)
                ->selectRaw('c.id id, s.name n'),
            'invitations' => DB::table('invitations as i')->whereIn('i.id', $ids)->selectRaw('i.id id, i.email n'),
            'student_invitations' => DB::table('student_invitations as i')
                ->whereIn('i.id', $ids)
                ->selectRaw('i.id id, i.typed n'),
            'join_requests' => DB::table('join_requests as r')
                ->whereIn('r.id', $ids)
                ->selectRaw("r.id id, TRIM(CONCAT(r.given_name, ' ', r.family_name)) n"),
            'guardian_claims' => DB::table('guardian_claims as r')
                ->whereIn('r.id', $ids)
                ->selectRaw("r.id id, TRIM(CONCAT(r.given_name, ' ', r.family_name)) n"),
            'guardian_invitations' => DB::table('guardian_invitations as i')
                ->join('people as p', 'p.id', '=', 'i.guardian_id')
                ->whereIn('i.id', $ids)
                ->selectRaw("i.id id, $person n"),
            'notices' => DB::table('notices as o')->whereIn('o.id', $ids)->selectRaw('o.id id, o.title n'),
            'work_results' => DB::table('work_results as w')
                ->join('people as p', 'p.id', '=', 'w.person_id')
                ->whereIn('w.id', $ids)
                ->selectRaw("w.id id, $person n"),
            'room_passes' => DB::table('room_passes as r')
                ->join('sections as s', 's.id', '=', 'r.section_id')
                ->whereIn('r.id', $ids)
                ->selectRaw('r.id id, s.name n'),
            'schools' => DB::table('schools as s')->whereIn('s.id', $ids)->selectRaw('s.id id, s.name n'),
            'guardianships' => DB::table('guardianships as g')
                ->join('people as p', 'p.id', '=', 'g.guardian_id')
                ->join('people as c', 'c.id', '=', 'g.student_id')
                ->whereIn('g.id', $ids)
                ->selectRaw("g.id id, CONCAT($person, ' for ', c.given_name) n"),
            'coordinators' => DB::table('coordinators as k')
                ->join('people as p', 'p.id', '=', 'k.person_id')
                ->whereIn('k.id', $ids)
                ->selectRaw("k.id id, $person n"),
            'identities' => DB::table('identities as k')
                ->join('people as p', 'p.id', '=', 'k.person_id')
                ->whereIn('k.id', $ids)
                ->selectRaw("k.id id, $person n"),
            'school_years' => DB::table('school_years as y')->whereIn('y.id', $ids)->selectRaw('y.id id, y.name n'),
            default => null,
        };

        return $query === null ? [] : array_map(strval(...), $query->pluck('n', 'id')->all());
    }

    /** The name in an image, of a record that is not there any more; '' where it has none. */
    public static function inImage(string $image): string
    {
        $values = (array) json_decode($image, true);
        $person = trim(($values['given_name'] ?? '') . ' ' . ($values['family_name'] ?? ''));

        return $person !== ''
            ? $person
            : (string) ($values['name'] ?? ($values['user_name'] ?? ($values['email'] ?? '')));
    }
}
