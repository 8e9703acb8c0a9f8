<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\RequestCause;
use Vantrel\Core\Records\RequestState;

/** A newcomer who waits. Their address and birth date stay on the server. */
final readonly class RequestLine extends Resource
{
    /**
     * @param  RequestState  $state waiting, or mail while the own address has not been confirmed
     * @param  list<RequestMatch>  $mayBe students of the Roll, likeliest first
     */
    public function __construct(
        public string $id,
        public string $name,
        public RequestState $state,
        public RequestCause $cause,
        public ?int $age,
        public string $askedAt,
        public array $mayBe,
    ) {}
}
