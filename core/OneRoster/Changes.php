<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/** What has changed in a record since an instant: which people it touches, and what of the whole is about them. */
final readonly class Changes
{
    /**
     * @param  array<string, true>  $people sourcedIds of those touched
     * @param  int  $gone students who are to be deleted
     */
    private function __construct(public array $people, public int $gone) {}

    /**
     * A guardian's change is their children's, and so is an enrollment's and a birth date's.
     *
     * @param  list<array<string, mixed>>  $users changed since
     * @param  list<array<string, mixed>>  $enrollments
     * @param  list<array<string, mixed>>  $demographics
     */
    public static function of(array $users, array $enrollments, array $demographics): self
    {
        $people = [];
        $gone = 0;
        foreach ($users as $user) {
            foreach ([...Values::of($user, 'sourcedId'), ...Values::of($user, 'agents.sourcedId')] as $id) {
                $people[$id] = true;
            }
            $gone += (int) (self::isGone($user) && in_array('student', Values::of($user, 'roles.role'), true));
        }
        foreach ($enrollments as $enrollment) {
            foreach (Values::of($enrollment, 'user.sourcedId') as $id) {
                $people[$id] = true;
            }
        }
        foreach ($demographics as $birth) {
            foreach (Values::of($birth, 'sourcedId') as $id) {
                $people[$id] = true;
            }
        }

        return new self($people, $gone);
    }

    /**
     * Of all users those who are touched, and families, who are named by them.
     *
     * @param  list<array<string, mixed>>  $users
     * @return list<array<string, mixed>>|null null where nobody is left but families and who is gone
     */
    public function among(array $users): ?array
    {
        $kept = [];
        $any = false;
        foreach ($users as $user) {
            $family = array_intersect(Values::of($user, 'roles.role'), Scope::FAMILY) !== [];
            $touched = isset($this->people[Values::of($user, 'sourcedId')[0] ?? '']);
            if ($family || $touched) {
                $kept[] = $user;
                $any = $any || (!$family && !self::isGone($user));
            }
        }

        return $any ? $kept : null;
    }

    /** @param  array<string, mixed>  $user */
    private static function isGone(array $user): bool
    {
        return Values::of($user, 'status') === ['tobedeleted'];
    }
}
