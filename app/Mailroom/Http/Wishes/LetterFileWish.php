<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;
use Illuminate\Http\UploadedFile;

/** A file to go with a letter; how large it may be is said where it is read. */
final readonly class LetterFileWish
{
    public function __construct(#[Must('max:10240')] public UploadedFile $file) {}
}
