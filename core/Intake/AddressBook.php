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
final readonly class AddressBook
{
    /** @param  string  $now UTC instant */
    public function __construct(private IntakeWish $wish, private string $now, private PlanBuilder $plan) {}

    /** @param  string  $kind student, guardian or staff */
    public function of(string $address, string $kind): Address
    {
        return Address::given(
            $address ?: null,
            $kind,
            $this->wish->school->mailDomains,
            AddressSource::Listed,
            $this->now,
        );
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
        $given = $this->of($address, $person->kind()->value);
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
