<?php

declare(strict_types=1);

namespace App\Mailroom;

/** One of many letters, as its receiver gets it. */
final readonly class Written
{
    /**
     * @param  string  $via mail or text
     * @param  string  $to address or number
     * @param  list<string>  $children ids of students it tells a guardian of
     */
    public function __construct(
        public string $personId,
        public string $name,
        public string $via,
        public string $to,
        public string $language,
        public string $subject,
        public string $text,
        public array $children,
    ) {}
}
