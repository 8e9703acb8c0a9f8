<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** A school, and how it wants things. */
final readonly class School extends Record
{
    public static function entity(): Entity
    {
        return Entity::School;
    }

    public function name(): string
    {
        return $this->text('name');
    }

    public function mailDomains(): string
    {
        return $this->text('mail_domains');
    }

    public function signInPolicy(): string
    {
        return $this->text('sign_in_policy');
    }

    public function outsideStaff(): bool
    {
        return $this->text('outside_staff') === '1';
    }

    public function newcomerCheck(): string
    {
        return $this->text('newcomer_check');
    }

    public function newcomerMail(): bool
    {
        return $this->text('newcomer_mail') === '1';
    }

    public function under13(): string
    {
        return $this->text('under_13');
    }

    public function dayOpens(): string
    {
        return $this->text('day_opens');
    }

    public function dayCloses(): string
    {
        return $this->text('day_closes');
    }
}
