<?php

declare(strict_types=1);

use App\Platform\SortedRoute;
use App\Platform\SortedRouter;
use Illuminate\Support\Facades\Route;

// The routes of a real server are cached with the order of their middleware; here, where nothing is cached, both are
// worked out and held against each other.

it('keeps with cached routes the order in which the framework would run their middleware', function (): void {
    /** @var SortedRouter $router */
    $router = app('router');
    $seen = 0;
    foreach (Route::getRoutes() as $route) {
        expect($route)->toBeInstanceOf(SortedRoute::class);
        $should = $router->gatherRouteMiddleware($route);
        $cached = clone $route;
        $cached->prepareForSerialization();
        expect([$route->uri(), $cached->action[SortedRoute::SORTED]])->toBe([$route->uri(), $should]);
        foreach ($should as $middleware) {
            // A name that nobody has resolved, such as of a group, would run nothing.
            expect(class_exists(explode(':', $middleware)[0]))->toBeTrue("{$route->uri()}: $middleware");
        }
        $seen += $should === [] ? 0 : 1;
    }
    expect($seen)->toBeGreaterThan(200);
});
