<?php

declare(strict_types=1);

namespace App\Home\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\PersonKind;

/** The page of a student (themselves) or a guardian (the children connected to them). */
final readonly class Home extends Resource
{
    /**
     * @param  list<HomeStudent>  $students
     * @param  list<string>  $waiting given names of children whose school has yet to check
     */
    public function __construct(public PersonKind $kind, public array $students, public array $waiting) {}
}
