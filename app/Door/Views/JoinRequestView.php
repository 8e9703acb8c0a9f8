<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/** What has become of a request to come in. */
final readonly class JoinRequestView extends Resource
{
    /**
     * @param  string  $state mail, waiting, approved, refused or none
     * @param  string  $userName once approved, of the account whose password was chosen here
     * @param string $how where approved and not signed in: mail, by the link that was sent; card, with the card or
     *     password they have; password, with the one chosen here: it has been a while since they were let in
     */
    public function __construct(
        public string $state,
        public string $section,
        public string $userName,
        public string $how,
    ) {}
}
