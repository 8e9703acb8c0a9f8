<?php

declare(strict_types=1);

namespace App\Wiring;

use App\Accounts\AddressNotices;
use App\Accounts\PeopleProvider;
use App\Accounts\SessionRows;
use App\Guardians\EndSessions;
use App\Intake\KeepRedone;
use App\Intake\ReplanUndone;
use App\Ledger\EntryRedone;
use App\Ledger\EntryUndone;
use App\Ledger\EntryWritten;
use App\Ledger\Outcome;
use App\Ledger\WriteGuard;
use App\LookAlikes;
use App\Mailroom\MailroomTransport;
use App\Mailroom\Outbox;
use App\Models\LedgerEntry;
use App\OneRoster\Touch;
use App\Platform\SchoolDay;
use App\Platform\SignedIn;
use App\Roll;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Contracts\Foundation\Application;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Events\ConnectionEstablished;
use Illuminate\Database\Events\TransactionCommitting;
use Illuminate\Database\Events\TransactionRolledBack;
use Illuminate\Http\Request;
use Illuminate\Queue\Events\JobExceptionOccurred;
use Illuminate\Queue\Events\JobProcessed;
use Illuminate\Queue\Events\JobProcessing;
use Illuminate\Routing\UrlGenerator;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Facades\Route;
use Illuminate\Support\Facades\Session;
use Illuminate\Support\Facades\Vite;
use Illuminate\Support\ServiceProvider;
use Symfony\Component\Mailer\Transport\TransportInterface;

/** Wires the application together. */
final class VantrelProvider extends ServiceProvider
{
    public function register(): void
    {
        // It knows whether a worker has been asked for already.
        $this->app->singleton(Outbox::class);
        // The PDF library reads constants when its first class is loaded: our fonts only, and exceptions in place of
        // exits.
        foreach (
            [
                'K_TCPDF_EXTERNAL_CONFIG' => true,
                'K_TCPDF_THROW_EXCEPTION_ERROR' => true,
                'K_PATH_FONTS' => storage_path('fonts') . '/',
                'PDF_FONT_NAME_MAIN' => 'atkinsonhyperlegiblenext',
            ]
            as $name => $value
        ) {
            if (!defined($name)) {
                define($name, $value);
            }
        }
    }

    public function boot(): void
    {
        Model::shouldBeStrict();
        // Addresses in answers come from the settings, not from what a request says of its host.
        $this->app->make(UrlGenerator::class)->forceRootUrl((string) config('app.url'));
        // Its own parts a page asks for where it came from: this machine has more names than one.
        Vite::createAssetPathsUsing(fn(string $path): string => "/$path");
        SchoolDay::forget();
        Policies::register();
        Event::listen(EntryUndone::class, ReplanUndone::class);
        Event::listen(EntryRedone::class, KeepRedone::class);
        Event::listen(
            TransactionCommitting::class,
            fn(TransactionCommitting $e) => Outcome::committing($e->connection),
        );
        Event::listen(EntryWritten::class, AddressNotices::class);
        Event::listen([EntryWritten::class, EntryUndone::class, EntryRedone::class], EndSessions::class);
        Event::listen([EntryWritten::class, EntryUndone::class, EntryRedone::class], Touch::class);
        foreach ([Roll\FollowEntries::class, LookAlikes\FollowEntries::class] as $follows) {
            Event::listen([EntryWritten::class, EntryUndone::class, EntryRedone::class], $follows);
        }
        Auth::provider(
            'people',
            fn(Application $app, array $of): PeopleProvider => new PeopleProvider($app->make('hash'), $of['model']),
        );
        Event::listen(
            SignedIn::class,
            fn(SignedIn $e) => $this->app->make(Roll\KeptProblems::class)->signedIn($e->personId),
        );
        Event::listen(
            ConnectionEstablished::class,
            fn(ConnectionEstablished $e) => $e->connection->beforeExecuting(WriteGuard::look(...)),
        );
        Event::listen(JobProcessing::class, WriteGuard::arm(...));
        Event::listen([JobProcessed::class, JobExceptionOccurred::class], WriteGuard::disarm(...));
        // In URLs an entry goes by its ULID; its number is for the database.
        Route::bind('entry', fn(string $id): LedgerEntry => LedgerEntry::query()->where('id', $id)->firstOrFail());
        Session::extend(
            'database',
            fn(): SessionRows => new SessionRows(
                DB::connection(),
                (string) config('session.table'),
                (int) config('session.lifetime'),
                $this->app,
            ),
        );
        Mail::extend('mailroom', fn(): TransportInterface => $this->app->make(MailroomTransport::class));
        Event::listen(TransactionRolledBack::class, fn() => $this->app->make(Outbox::class)->rolledBack());
        // Against floods only, each route by itself: no route that is flooded shuts another.
        RateLimiter::for(
            'guest',
            fn(Request $request): Limit => Limit::perMinute(6000)->by($request->route()?->uri() . '|' . $request->ip()),
        );
        RateLimiter::for(
            'roster',
            fn(Request $request): Limit => Limit::perMinute(1200)->by(
                hash('sha256', (string) $request->bearerToken()) . '|' . $request->ip(),
            ),
        );
        RateLimiter::for(
            'upload',
            fn(Request $request): Limit => Limit::perMinute(30)->by((string) $request->user()?->getAuthIdentifier()),
        );
    }
}
