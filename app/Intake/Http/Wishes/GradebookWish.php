<?php

declare(strict_types=1);

namespace App\Intake\Http\Wishes;

use App\Platform\AsSeen;
use App\Platform\Must;
use Illuminate\Http\UploadedFile;
use Vantrel\Core\Plan\Refusal;

/** A gradebook’s tables: a zip, or lineItems.csv and results.csv by themselves; once looked at, as it was seen. */
final readonly class GradebookWish
{
    /** @param  list<UploadedFile>  $files */
    public function __construct(
        #[Must('min:1|max:5', each: 'file')] public array $files,
        #[Must('size:64')] public ?string $fingerprint = null,
        #[Must('regex:/^[0-7][0-9A-HJKMNP-TV-Z]{25}$/')] public ?string $seed = null,
    ) {}

    /** @throws Refusal where it has not been looked at */
    public function seen(): AsSeen
    {
        return $this->fingerprint === null || $this->seed === null
            ? throw new Refusal('Look at what it does first.', 'files')
            : new AsSeen($this->fingerprint, $this->seed);
    }
}
