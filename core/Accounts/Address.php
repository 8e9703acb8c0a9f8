<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Records\AddressState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Values\MailAddress;

/**
 * A person's address: claimed until something shows that it is theirs. Only a confirmed one signs in, resets a
 * password, is met by single sign-on, or receives anything personal.
 */
final readonly class Address
{
    private function __construct(
        public ?string $address,
        public bool $confirmed,
        public ?AddressSource $source,
        public ?string $at,
    ) {}

    /** @param  string  $at UTC instant */
    public static function claimed(?string $address, AddressSource $source, string $at): self
    {
        return $address === null || $address === '' ? self::none() : new self($address, false, $source, $at);
    }

    /** @param  string  $at UTC instant */
    public static function confirmed(string $address, AddressSource $source, string $at): self
    {
        return new self($address, true, $source, $at);
    }

    /**
     * As the school's own list or coordinator gives it. A school vouches for the mailboxes it hands out itself, to
     * students and staff; for all others only their owner can.
     *
     * @param  string  $kind student, guardian or staff
     * @param  list<string>  $domains the school's own mail domains
     * @param  string  $at UTC instant
     */
    public static function given(
        ?string $address,
        string $kind,
        array $domains,
        AddressSource $source,
        string $at,
    ): self {
        return $address !== null &&
            $kind !== 'guardian' &&
            in_array((string) MailAddress::read($address)?->domain(), $domains, true)
            ? self::confirmed($address, AddressSource::School, $at)
            : self::claimed($address, $source, $at);
    }

    public static function none(): self
    {
        return new self(null, false, null, null);
    }

    /** Whether it may be written to as somebody’s: one typed at the door may be another’s until it is confirmed. */
    public static function isTheirs(AddressState $state, ?AddressSource $source): bool
    {
        return $state === AddressState::Confirmed || $source !== AddressSource::Door;
    }

    public static function isConfirmed(Person $person): bool
    {
        return $person->email() !== null && $person->emailState() === AddressState::Confirmed;
    }

    /** @return array<string, string|null> columns of the person */
    public function columns(): array
    {
        return [
            'email' => $this->address,
            'email_state' => $this->confirmed ? 'confirmed' : 'claimed',
            'email_by' => $this->source?->value,
            'email_at' => $this->at,
        ];
    }

    /**
     * What of it is new to a person: nothing where they have the address already, except that it is confirmed by now.
     *
     * @return array<string, string|null>
     */
    public function changes(Person $person): array
    {
        return $this->address === null ||
            ($person->email() === $this->address && (self::isConfirmed($person) || !$this->confirmed))
            ? []
            : $this->columns();
    }
}
