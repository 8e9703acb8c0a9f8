<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** Students or families to be asked into a section by mail. */
final readonly class StudentInviteWish
{
    /**
     * @param  string  $who addresses, numbers and user names, as they are typed or pasted
     * @param  bool  $family whether the families are written to
     * @param  string  $language a tag, for those whose own is not known
     * @param  string|null  $seen what was looked at; needed to send it
     */
    public function __construct(
        #[Must('max:20000')] public string $who,
        public bool $family = false,
        #[Must('max:8')] public string $language = 'en',
        #[Must('size:64')] public ?string $seen = null,
    ) {}
}
