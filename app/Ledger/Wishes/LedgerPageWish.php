<?php

declare(strict_types=1);

namespace App\Ledger\Wishes;

use App\Platform\Must;
use Vantrel\Core\Plan\Area;

/** Which entries of a ledger, and from which on, by its order. */
final readonly class LedgerPageWish
{
    /** The actor of what nobody did: the nightly clean-up, a list that a program brought. */
    public const NOBODY = 'vantrel';

    /**
     * @param  string|null  $actor id of who did it, or {@see NOBODY}
     * @param  string|null  $from day of the school, the first that counts
     * @param  string|null  $to the last that counts
     * @param  string|null  $about id of a person or a section: what was done to it, or to what belongs to it
     */
    public function __construct(
        #[Must('min:1')] public ?int $after = null,
        public ?Area $area = null,
        #[Must(['regex:/^(vantrel|[0-7][0-9A-HJKMNP-TV-Z]{25})$/'])] public ?string $actor = null,
        #[Must('date_format:Y-m-d')] public ?string $from = null,
        #[Must('date_format:Y-m-d')] public ?string $to = null,
        #[Must('ulid')] public ?string $about = null,
    ) {}
}
