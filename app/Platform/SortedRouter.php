<?php

declare(strict_types=1);

namespace App\Platform;

use Illuminate\Routing\Route;
use Illuminate\Routing\Router;

/**
 * The order in which the middleware of a route runs is the same with every request. The framework sorts it anew each
 * time, a tenth of what a join costs; here it is sorted when routes are cached.
 */
final class SortedRouter extends Router
{
    /**
     * @param  array<int, string>|string  $methods
     * @param  string  $uri
     * @param  mixed  $action
     */
    public function newRoute($methods, $uri, $action): Route
    {
        return (new SortedRoute($methods, $uri, $action))->setRouter($this)->setContainer($this->container);
    }

    /** @return array<int, mixed> */
    public function gatherRouteMiddleware(Route $route): array
    {
        return $route->action[SortedRoute::SORTED] ?? parent::gatherRouteMiddleware($route);
    }
}
