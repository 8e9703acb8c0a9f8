<?php

declare(strict_types=1);

namespace App\PrintRoom;

use Vantrel\Core\Accounts\Way;

/** What is set on one login card. */
final readonly class Card
{
    /**
     * @param  string  $short the name with a letter for the family name
     * @param  string  $passphrase '' where the person has an own password
     */
    public function __construct(
        public string $name,
        public string $short,
        public string $place,
        public string $userName,
        public string $passphrase,
        public string $link,
        public Way $way,
    ) {}

    /** With what signs in; a password of one's own is on no card. */
    public function with(string $passphrase, string $link): self
    {
        return new self($this->name, $this->short, $this->place, $this->userName, $passphrase, $link, $this->way);
    }

    /** As it is set where the whole of it does not fit. */
    public function shortened(): self
    {
        return new self($this->short, $this->short, '', $this->userName, $this->passphrase, $this->link, $this->way);
    }
}
