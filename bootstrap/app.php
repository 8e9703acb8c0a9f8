<?php

declare(strict_types=1);

use App\Accounts\FollowMerge;
use App\Accounts\KeepSession;
use App\Accounts\MustFinish;
use App\Accounts\StandingSession;
use App\Ledger\GuardWrites;
use App\Platform\BodySize;
use App\Platform\Flood;
use App\Platform\OnceOnly;
use App\Platform\OnlyWhatChanged;
use App\Platform\SecurityHeaders;
use App\Platform\SortedRouter;
use App\Wiring\Problems;
use Illuminate\Auth\Middleware\Authorize;
use Illuminate\Contracts\Auth\Middleware\AuthenticatesRequests;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Http\Request;

// A trace in a log says where, not what people have typed.
ini_set('zend.exception_ignore_args', '1');

// An instance's database, files, keys and ports live in its own folder, so that several can run side by side.
$home = getenv('VANTREL_HOME') ?: dirname(__DIR__) . '/.vantrel';

$app = Application::configure(basePath: dirname(__DIR__))
    ->withProviders([App\Wiring\VantrelProvider::class], false)
    ->withRouting(web: __DIR__ . '/../routes/web.php', commands: __DIR__ . '/../routes/console.php')
    ->withCommands([
        __DIR__ . '/../app/Accounts/Commands',
        __DIR__ . '/../app/Desk/Commands',
        __DIR__ . '/../app/Guardians/Commands',
        __DIR__ . '/../app/Intake/Commands',
        __DIR__ . '/../app/Ledger/Commands',
        __DIR__ . '/../app/LookAlikes/Commands',
        __DIR__ . '/../app/Mailroom/Commands',
        __DIR__ . '/../app/Platform/Commands',
        __DIR__ . '/../app/Wiring/Commands',
        __DIR__ . '/../app/PrintRoom/Commands',
        __DIR__ . '/../app/Retention/Commands',
        __DIR__ . '/../app/Roll/Commands',
        __DIR__ . '/../app/Rosters/Commands',
        __DIR__ . '/../app/StandIns/Commands',
        __DIR__ . '/../app/Tools/Commands',
    ])
    ->withMiddleware(function (Middleware $middleware): void {
        $middleware->remove(HandleCors::class);
        $middleware->prepend(GuardWrites::class);
        $middleware->prepend(BodySize::class);
        $middleware->web(
            append: [
                SecurityHeaders::class,
                OnlyWhatChanged::class,
                KeepSession::class,
                FollowMerge::class,
                StandingSession::class,
                OnceOnly::class,
            ],
        );
        // They may end a session, so they come before anything asks who is signed in.
        foreach ([KeepSession::class, FollowMerge::class, StandingSession::class] as $ends) {
            $middleware->prependToPriorityList(AuthenticatesRequests::class, $ends);
        }
        // What has been answered once is answered again only to who still may.
        $middleware->prependToPriorityList(Authorize::class, MustFinish::class);
        $middleware->appendToPriorityList(Authorize::class, OnceOnly::class);
        $middleware->alias(['finished' => MustFinish::class, 'flood' => Flood::class, 'body' => BodySize::class]);
        $middleware->redirectGuestsTo('/');
        // A field of a person that is emptied is not one that is left out.
        $middleware->convertEmptyStringsToNull([
            fn(Request $request): bool => preg_match('#^api/people/[^/]+$#D', $request->path()) === 1,
        ]);
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        Problems::register($exceptions);
    })
    ->create();

$app->singleton('router', fn(Application $app): SortedRouter => new SortedRouter($app['events'], $app));
$app->useStoragePath($home . '/storage');
$app->useEnvironmentPath($home);
$app->loadEnvironmentFrom('env');

return $app;
