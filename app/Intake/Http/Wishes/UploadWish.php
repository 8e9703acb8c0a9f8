<?php

declare(strict_types=1);

namespace App\Intake\Http\Wishes;

use App\Platform\Must;
use Illuminate\Http\UploadedFile;

/** A list: one file, several, or what was pasted. How large they may be is a setting of the server. */
final readonly class UploadWish
{
    /** @param  list<UploadedFile>  $files */
    public function __construct(
        #[Must('required_without_all:files,text')] public ?UploadedFile $file = null,
        #[Must('min:1|max:10', each: 'file')] public array $files = [],
        #[Must('max:4000000')] public string $text = '',
        #[Must('max:12000000')] public string $html = '',
    ) {}
}
