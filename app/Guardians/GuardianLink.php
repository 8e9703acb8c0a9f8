<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Ledger\Snapshots;
use App\Models\School;
use App\Platform\PlannerKit;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Guardians\Invites;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\GuardianInvitation;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;

/** An invitation as its link opens it: whom it asks, about which children. */
final readonly class GuardianLink
{
    /**
     * @param  list<Guardianship>  $links that it is about
     * @param  array<string, Person>  $students by id
     * @param  list<SignIn>  $signIns of the guardian
     */
    private function __construct(
        public GuardianInvitation $invitation,
        public School $school,
        public Person $guardian,
        public array $links,
        public array $students,
        public array $signIns,
    ) {}

    /** @throws Refusal in words for whoever followed the link */
    public static function open(string $token, Snapshots $snapshots, TieReader $ties, PlannerKit $kit): self
    {
        $invitation =
            $snapshots->list(GuardianInvitation::class, fn($q) => $q->where('token_hash', Token::hashOf($token)))[0] ??
            throw new Refusal('This link does not work any more. Ask the school for another one.', 'token');
        $guardian =
            $snapshots->find(Person::class, $invitation->guardianId()) ??
            throw new Refusal('This link does not work any more. Ask the school for another one.', 'token');
        Invites::mustWork($invitation, $guardian, $kit->now());
        $links = $ties->at($guardian->id, $invitation->schoolId());
        $students = $ties->people(array_map(fn(Guardianship $g): string => $g->studentId(), $links));

        return new self(
            $invitation,
            School::query()->findOrFail($invitation->schoolId()),
            $guardian,
            Invites::waiting($links, $students),
            $students,
            $snapshots->list(SignIn::class, fn($q) => $q->where('person_id', $guardian->id)),
        );
    }

    /** Whether the guardian has yet to choose a password. */
    public function opens(): bool
    {
        return array_filter($this->signIns, fn(SignIn $s): bool => $s->password() !== null) === [];
    }

    /** @return list<string> given names of the children */
    public function children(): array
    {
        return array_map(
            fn(Guardianship $g): string => $this->students[$g->studentId()]->preferredName() ??
                $this->students[$g->studentId()]->givenName(),
            $this->links,
        );
    }
}
