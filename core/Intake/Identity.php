<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\Linkage;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Plan\Choice;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\TransferKind;

/**
 * Settles who each row is: by what a person answered, by the account a row made before, by the matcher, or by asking.
 */
final class Identity
{
    /** @var array<string, StudentLine> person's id to the row that is this person */
    private array $claimed = [];

    /** @var array<string, true> ids of people some row is or may be */
    private array $spokenFor = [];

    public function __construct(
        private readonly Snapshot $snapshot,
        private readonly Roster $roster,
        private readonly Linkage $linkage,
        private readonly IntakeWish $wish,
        private readonly Ids $people,
        private readonly PlanBuilder $plan,
    ) {}

    /** @return array<string, true> ids of people some row is or may be: they do not leave */
    public function spokenFor(): array
    {
        return $this->spokenFor;
    }

    public function of(StudentLine $line): RowMatch
    {
        $subject = Roster::subjectOf($line, $this->wish->schoolId);
        foreach ($this->linkage->candidates($subject->id) as $candidate) {
            $this->spokenFor[$candidate->subject->id] = true;
        }
        $match =
            $this->byAccount($line, $subject) ??
            ($this->byNumberAlone($line, $subject) ?? ($this->own($line, $subject) ?? $this->decide($line, $subject)));
        if ($match->person !== null) {
            $this->spokenFor[$match->person->id] = true;
        }

        return $match;
    }

    /** Someone a row that cannot be read may be: by its number alone. */
    public function guess(StudentLine $line): void
    {
        foreach ($this->linkage->candidates($line->place()) as $candidate) {
            $this->spokenFor[$candidate->subject->id] = true;
        }
        $holder = $this->holderOf($line->studentNumber);
        if ($holder !== null) {
            $this->spokenFor[$holder->id] = true;
        }
    }

    /** Who has this number at the school now. */
    public function holderOf(string $number): ?Person
    {
        return $number === '' ? null : $this->roster->byNumber($this->wish->schoolId, $number);
    }

    /** The account that a sheet made here names. */
    private function byAccount(StudentLine $line, Subject $subject): ?RowMatch
    {
        $known = $line->account === '' ? null : $this->ourOwn($line->account);

        return $known === null ? null : $this->claim($line, $this->linkage->judge($subject, $known), 'same');
    }

    /** A row that names its student by the school's number and nothing else says it plainly. */
    private function byNumberAlone(StudentLine $line, Subject $subject): ?RowMatch
    {
        $holder = $line->name->full() === '' && !$line->mayAdd ? $this->holderOf($line->studentNumber) : null;
        $known = $holder === null ? null : $this->roster->subject($holder->id);

        return $known === null ? null : $this->claim($line, $this->linkage->judge($subject, $known), 'same');
    }

    /** The student this very row made when the list was applied before. */
    private function own(StudentLine $line, Subject $subject): ?RowMatch
    {
        $made = $this->ourOwn($this->roster->survivor($this->people->for('person', $line->key())));

        return $made === null ? null : $this->claim($line, $this->linkage->judge($subject, $made), 'same');
    }

    private function decide(StudentLine $line, Subject $subject): RowMatch
    {
        $candidates = array_values(array_filter($this->linkage->candidates($subject->id), $this->mayBeSpokenOf(...)));
        $candidates = array_slice($candidates, 0, 3);
        $assigned = $this->linkage->assigned($subject->id);
        $assigned = $assigned !== null && $this->mayBeSpokenOf($assigned) ? $assigned : null;
        $best = $assigned ?? ($candidates[0] ?? null);
        // Answers go by the row, not by whom it was compared with: a row left out stays out when others have been
        // applied.
        $id = substr(hash('sha256', 'who|' . $line->key()), 0, 20);
        $answer = WhoAnswer::read($this->wish->answers[$id] ?? null);
        $chosen = $this->chosen($subject, $answer);
        if ($best === null || $candidates === []) {
            return match (true) {
                $chosen !== null => $this->claim($line, $chosen, $answer->how ?? 'same', $id),
                $answer?->skips() === true => RowMatch::skipped($id),
                default => RowMatch::none(null, $this->apart($subject->id)),
            };
        }
        $person = $this->snapshot->find(Person::class, $best->subject->id);
        $lost = $assigned === null;
        $foreign = $person !== null && !$this->wish->writes($person);
        $elsewhere =
            $foreign ||
            ($person !== null &&
                $person->schoolId() !== $this->wish->schoolId &&
                $person->state() === PersonState::Active);
        if ($best->sure() && !$lost && !$elsewhere && $answer === null && $person !== null) {
            return $this->claim($line, $best, 'same');
        }
        $rival = $candidates[1] ?? null;
        $why = match (true) {
            $foreign => 'may be a student of ' . $this->roster->schoolName($best->subject->schoolId),
            $lost => 'another row fits this student better',
            $rival !== null && $rival->probability >= 0.2 && !$best->sure() => 'two people fit alike',
            $best->caution !== '' => $best->caution,
            $best->sure() => 'is at ' . $this->roster->schoolName($best->subject->schoolId) . ' now',
            default => self::doubt($best),
        };
        if ($chosen === null && $answer?->personId !== null) {
            $answer = null;
        }
        $school = $this->roster->schoolName($best->subject->schoolId);
        $this->plan->ask(
            new Question(
                $id,
                $line->number,
                $foreign
                    ? 'Is ' . $line->where() . " a student of $school?"
                    : 'Is ' . $line->where() . " {$this->roster->name($best->subject->id)}?",
                $foreign
                    ? "Somebody there agrees with what this row says. What $school knows of them stays there; " .
                        'if you ask, they see what the row says.'
                    : $this->roster->describe($best->subject->id),
                $this->choices($candidates),
                $foreign ? [] : $best->evidence,
                $foreign ? null : $best->probability,
                $answer?->written(),
                $line->sheet,
                $why . ($elsewhere ? '|elsewhere' : ''),
            ),
        );

        return match (true) {
            $answer === null => RowMatch::asked($best, $why, $id),
            $answer->skips() => RowMatch::skipped($id),
            $answer->isOther() => RowMatch::none($id),
            $chosen === null => RowMatch::asked($best, $why, $id),
            default => $this->claim($line, $chosen, $answer->how, $id),
        };
    }

    /** Someone who is alike and yet another, in words. */
    private function apart(string $place): string
    {
        $taken = $this->linkage->taken($place);
        if ($taken === null) {
            $apart = $this->linkage->apart($place);
            $person = $apart === null ? null : $this->snapshot->find(Person::class, $apart[0]);

            return $apart === null || ($person !== null && !$this->wish->writes($person)) ? '' : $apart[1];
        }
        if (!$this->mayBeSpokenOf($taken[0])) {
            return '';
        }
        [$sheet, $number] = explode('#', $taken[1]) + [1 => ''];

        return trim("{$taken[0]->subject->given} {$taken[0]->subject->family}") .
            ": that is row $number" .
            ($sheet === '' ? '' : " of $sheet");
    }

    /** Whom an answer names, as long as that student is known. */
    private function chosen(Subject $subject, ?WhoAnswer $answer): ?Candidate
    {
        $known = $answer?->personId === null ? null : $this->roster->subject($answer->personId);
        $candidate = $known === null ? null : $this->linkage->judge($subject, $known);
        $person = $known === null ? null : $this->snapshot->find(Person::class, $known->id);
        // What may be done with a student of this school may not be with one of another, whoever writes the answer.
        $asks = $answer?->asks() === true;

        return $candidate === null ||
            $person === null ||
            $asks === $this->wish->writes($person) ||
            !$this->mayBeSpokenOf($candidate)
            ? null
            : $candidate;
    }

    /** A student whom this list may write, as the matcher sees them. */
    private function ourOwn(string $personId): ?Subject
    {
        $person = $this->snapshot->find(Person::class, $personId);

        return $person === null || !$this->wish->writes($person) ? null : $this->roster->subject($personId);
    }

    /**
     * Of a student of another school nothing is said, not even that there is one, unless the row itself brings what
     * shows that it means them: their birth date or number. Then only that: how near the rest of the row comes would
     * let it be guessed.
     */
    private function mayBeSpokenOf(Candidate $candidate): bool
    {
        $person = $this->snapshot->find(Person::class, $candidate->subject->id);
        if ($person === null || $this->wish->writes($person)) {
            return $person !== null;
        }
        foreach ($candidate->evidence as $e) {
            if (in_array($e->field, ['birth date', 'student number'], true) && str_starts_with($e->level, 'alike')) {
                return true;
            }
        }

        return false;
    }

    private function claim(StudentLine $line, Candidate $candidate, string $how, ?string $question = null): RowMatch
    {
        $id = $candidate->subject->id;
        $before = $this->claimed[$id] ?? null;
        if ($before !== null) {
            return RowMatch::refused($candidate, "{$before->where()} is this student already");
        }
        $this->claimed[$id] = $line;
        $person = $this->snapshot->find(Person::class, $id);

        return $person === null ? RowMatch::none() : RowMatch::found($person, $candidate, $how, $question);
    }

    /** The field that speaks loudest against a likely match, in words. */
    private static function doubt(Candidate $best): string
    {
        $least = null;
        foreach ($best->evidence as $e) {
            if (
                $e->level !== 'alike' &&
                $e->level !== 'not known' &&
                $e->weight < 0 &&
                ($least === null || $e->weight < $least->weight)
            ) {
                $least = $e;
            }
        }

        return match (true) {
            $least === null => 'little to go by',
            $least->level === 'differs' => "{$least->field} differs",
            default => "{$least->field}: {$least->level}",
        };
    }

    /**
     * @param  list<Candidate>  $candidates
     * @return list<Choice>
     */
    private function choices(array $candidates): array
    {
        $choices = [];
        foreach ($candidates as $candidate) {
            $id = $candidate->subject->id;
            $person = $this->snapshot->find(Person::class, $id);
            $name =
                $person !== null && !$this->wish->writes($person)
                    ? ''
                    : (count($candidates) > 1
                        ? $this->roster->name($id) . ', ' . $this->roster->describe($id)
                        : $this->roster->name($id));
            if ($person !== null && !$this->wish->writes($person)) {
                $school = $this->roster->schoolName($person->schoolId());
                $choices[] = new Choice(
                    WhoAnswer::is($id, 'ask-transfer')->written(),
                    TransferKind::Transfer->wish($school),
                    "$school answers; until then nothing of the student changes",
                    'ask-transfer',
                );
                $choices[] = new Choice(
                    WhoAnswer::is($id, 'ask-also')->written(),
                    TransferKind::Also->wish($school),
                    "the student stays at $school and, once it agrees, comes into the sections of this row too",
                    'ask-also',
                );
            } elseif (
                $person !== null &&
                $person->schoolId() !== $this->wish->schoolId &&
                $person->state() === PersonState::Active
            ) {
                $school = $this->roster->schoolName($person->schoolId());
                $choices[] = new Choice(
                    WhoAnswer::is($id, 'transfer')->written(),
                    "Same person, transfer: $name",
                    "ends all sections at $school today; the account and cards go on working",
                    'transfer',
                );
                $choices[] = new Choice(
                    WhoAnswer::is($id, 'also')->written(),
                    "Same person, also enroll: $name",
                    "stays at $school and comes into the sections of this row too",
                    'also',
                );
                $choices[] = new Choice(
                    WhoAnswer::is($id, 'leave')->written(),
                    "Same person, leave enrollments: $name",
                    'brings what the row says of the person up to date, and no section changes',
                    'leave',
                );
            } else {
                $choices[] = new Choice(
                    WhoAnswer::is($id)->written(),
                    "Same person: $name",
                    'keeps the account and its cards; this row updates it',
                    'same',
                );
            }
        }
        $choices[] = new Choice('other', 'Another person', 'makes a new account', 'other');
        $choices[] = new Choice('skip', 'Leave this row out', 'changes nothing', 'skip');

        return $choices;
    }
}
