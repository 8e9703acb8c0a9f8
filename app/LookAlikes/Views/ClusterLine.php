<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\PersonKind;

/** Accounts that may all be one person. */
final readonly class ClusterLine extends Resource
{
    /**
     * @param  string  $id ids of the accounts, smallest first, apart by `-`
     * @param  list<AccountLine>  $accounts
     * @param  string  $why care is needed, '' where nothing speaks against it
     * @param  bool  $clear whether it needs no second thought
     */
    public function __construct(
        public string $id,
        public PersonKind $kind,
        public array $accounts,
        public float $probability,
        public string $why,
        public bool $clear,
    ) {}
}
