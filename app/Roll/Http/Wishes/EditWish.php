<?php

declare(strict_types=1);

namespace App\Roll\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Roll\PersonWish;

/** What a person is to be like; what is left out stays. */
final readonly class EditWish
{
    /** @param  int  $version of the person as they were looked at: where they have changed since, nothing is written */
    public function __construct(
        public int $version,
        #[Must('sometimes|max:200')] public ?string $given = null,
        #[Must('sometimes|max:200')] public ?string $family = null,
        #[Must('sometimes|max:200')] public ?string $preferred = null,
        #[Must('sometimes|max:40')] public ?string $birthDate = null,
        #[Must('sometimes|max:60')] public ?string $number = null,
        #[Must('sometimes|max:20')] public ?string $grade = null,
        #[Must('sometimes|max:300')] public ?string $email = null,
        #[Must('sometimes|max:60')] public ?string $phone = null,
        #[Must('sometimes|max:40')] public ?string $language = null,
        #[Must('sometimes|in:,full,initial')] public ?string $nameShown = null,
    ) {}

    public function person(): PersonWish
    {
        return new PersonWish(
            $this->given,
            $this->family,
            $this->preferred,
            $this->birthDate,
            $this->number,
            $this->grade,
            $this->email,
            $this->phone,
            $this->language,
            $this->nameShown,
        );
    }
}
