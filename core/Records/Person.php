<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** A student, a guardian or one of the staff. */
final readonly class Person extends Record
{
    public static function entity(): Entity
    {
        return Entity::Person;
    }

    public function schoolId(): string
    {
        return $this->text('school_id');
    }

    public function kind(): PersonKind
    {
        return PersonKind::from($this->text('kind'));
    }

    public function givenName(): string
    {
        return $this->text('given_name');
    }

    public function familyName(): string
    {
        return $this->text('family_name');
    }

    /** The given name they go by, where it is another. */
    public function preferredName(): ?string
    {
        return $this->field('preferred_name');
    }

    /** How much of their name others read, where that is not as the school has it. */
    public function nameShown(): ?string
    {
        return $this->field('name_shown');
    }

    /** What the family is written to in. */
    public function language(): ?string
    {
        return $this->field('language');
    }

    /** Given and family name, or the one there is. */
    public function fullName(): string
    {
        return trim($this->givenName() . ' ' . $this->familyName());
    }

    public function searchName(): string
    {
        return $this->text('search_name');
    }

    public function birthDate(): ?string
    {
        return $this->field('birth_date');
    }

    public function number(): ?string
    {
        return $this->field('number');
    }

    public function grade(): ?string
    {
        return $this->field('grade');
    }

    public function email(): ?string
    {
        return $this->field('email');
    }

    public function emailState(): AddressState
    {
        return AddressState::from($this->text('email_state'));
    }

    public function phone(): ?string
    {
        return $this->field('phone');
    }

    /** The number that has answered a text, in E.164; it counts while it is the person's number. */
    public function phoneConfirmed(): bool
    {
        return $this->phone() !== null && $this->field('phone_confirmed') === $this->phone();
    }

    public function state(): PersonState
    {
        return PersonState::from($this->text('state'));
    }

    public function mergedInto(): ?string
    {
        return $this->field('merged_into');
    }

    public function pictures(): ?string
    {
        return $this->field('pictures');
    }

    /** The day on which everything that said who they are was taken away, YYYY-MM-DD; null where nothing was. */
    public function erasedOn(): ?string
    {
        return $this->field('erased_on');
    }
}
