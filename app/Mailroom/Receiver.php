<?php

declare(strict_types=1);

namespace App\Mailroom;

/** Somebody who is written to. */
final readonly class Receiver
{
    /**
     * @param  list<string>  $children ids of those chosen whom they are a guardian of
     * @param  list<string>  $names given names of the same
     * @param  string|null  $email null where there is none
     * @param  string|null  $phone in E.164; null where there is none
     * @param  string  $bounced why mail to it came back, '' where none has
     */
    public function __construct(
        public string $id,
        public string $name,
        public ?string $email,
        public ?string $phone,
        public string $bounced,
        public ?string $language,
        public array $children,
        public array $names,
    ) {}
}
