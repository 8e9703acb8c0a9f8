<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/** A newcomer who waits. Their address and birth date stay on the server. */
final readonly class RequestLine extends Resource
{
    /**
     * @param  string  $state waiting, or mail while the own address has not been confirmed
     * @param  string  $cause newcomer, domain or under_13
     * @param  list<RequestMatch>  $mayBe students of the Roll, likeliest first
     */
    public function __construct(public string $id, public string $name, public string $state, public string $cause, public ?int $age, public string $askedAt, public array $mayBe)
    {
    }
}
