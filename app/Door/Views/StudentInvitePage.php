<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

final readonly class StudentInvitePage extends Resource
{
    /**
     * @param  list<StudentInviteLine>  $invitations newest first
     * @param  string  $said what has just been done, in a sentence
     */
    public function __construct(public array $invitations, public string $said) {}
}
