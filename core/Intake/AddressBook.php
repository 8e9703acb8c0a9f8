<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Plan\Choice;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Records\Person;

/**
 * Addresses as a list gives them: a new one is claimed or the school's own; a confirmed one is not replaced without a
 * question.
 */
final class AddressBook
{
    /** @var array<string, string> address to whom of the list it is, the first of several */
    private array $vouched = [];

    /** @param  string  $now UTC instant */
    public function __construct(
        private readonly IntakeWish $wish,
        private readonly string $now,
        private readonly PlanBuilder $plan,
    ) {}

    /**
     * @param  string  $kind student, guardian or staff
     * @param  string  $personId of whom it is to be: no school vouches for an address that is another's, of another
     *     row's too
     */
    public function of(string $address, string $kind, string $personId): Address
    {
        $given = Address::given(
            $address ?: null,
            $kind,
            $this->wish->school->mailDomains,
            AddressSource::Listed,
            $this->now,
        );
        if (!$given->confirmed) {
            return $given;
        }
        $this->vouched[$address] ??= $personId;
        if (array_diff([$this->vouched[$address], ...$this->wish->taken[$address] ?? []], [$personId]) !== []) {
            $this->plan->warn("$address is another account’s already, so it is not confirmed for this one.");

            return Address::claimed($address, AddressSource::Listed, $this->now);
        }

        return $given;
    }

    /**
     * What a list changes of a known person's address. Where one that is confirmed would go for one that nobody has
     * confirmed, a person decides: whoever has the new address could make themselves a new password.
     *
     * @return array<string, string|null> columns of the person
     */
    public function changes(Person $person, string $address, string $where, int $row, string $sheet): array
    {
        if ($address === '') {
            return [];
        }
        $given = $this->of($address, $person->kind()->value, $person->id);
        if (!Address::isConfirmed($person) || $person->email() === $address || $given->confirmed) {
            return $given->changes($person);
        }
        $id = substr(hash('sha256', "address|$person->id|$address"), 0, 20);
        $answer = $this->wish->answers[$id] ?? null;
        $this->plan->ask(
            (new Question(
                $id,
                $row,
                'Does ' . $person->fullName() . " have another address now ($where)?",
                "{$person->email()} is confirmed and may sign in; $address is not.",
                [
                    new Choice('keep', "Keep {$person->email()}", 'the address in this row is left out', 'keep'),
                    new Choice(
                        'take',
                        "Change it to $address",
                        'both addresses are told; the new one counts once its owner has confirmed it',
                        'take',
                    ),
                ],
                [],
                null,
                null,
                $sheet,
                'confirmed address',
            ))->answered($answer),
        );

        return $answer === 'take' ? $given->changes($person) : [];
    }
}
