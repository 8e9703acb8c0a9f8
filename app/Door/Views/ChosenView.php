<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;
use Vantrel\Core\Codes\CodeRule;

/** A code somebody would like, against the rules. */
final readonly class ChosenView extends Resource
{
    /**
     * @param  string  $written as it would stand on the wall, with its check symbol; '' while it is none
     * @param  list<CodeRule>  $rules
     */
    public function __construct(public bool $safe, public string $written, public array $rules) {}
}
