<?php

declare(strict_types=1);

namespace App\Platform;

use Illuminate\Contracts\Http\Kernel;
use Illuminate\Routing\Route;

/** Keeps with the routes that are cached in which order their middleware runs. */
final class SortedRoute extends Route
{
    public const SORTED = 'sorted';

    public function prepareForSerialization(): void
    {
        // It tells the router which middleware groups have: whoever caches routes has not asked for it yet.
        $this->container->make(Kernel::class);
        $this->action[self::SORTED] = $this->router->gatherRouteMiddleware($this);
        parent::prepareForSerialization();
    }
}
