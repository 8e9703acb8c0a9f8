<?php

declare(strict_types=1);

use App\Accounts\SessionRows;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Accounts\Lifetime;

it(
    'writes a session only where something has changed, keeps those that stay, and clears the idle away',
    function (): void {
        $rows = new SessionRows(DB::connection(), 'sessions', 90 * 24 * 60, app());
        expect($rows->read('one'))->toBe('');
        $rows->write('one', 'a:1:{s:1:"x";i:1;}');
        $rows = new SessionRows(DB::connection(), 'sessions', 90 * 24 * 60, app());
        $rows->read('two');
        $rows->write('two', 'a:1:{s:10:"stay_until";i:1;}');
        expect(DB::table('sessions')->orderBy('id')->pluck('stays', 'id')->all())->toBe(['one' => 0, 'two' => 1]);
        DB::table('sessions')->update(['last_activity' => time() - 60]);
        expect($rows->read('one'))->toBe('a:1:{s:1:"x";i:1;}');
        $rows->write('one', 'a:1:{s:1:"x";i:1;}');
        expect((int) DB::table('sessions')->where('id', 'one')->value('last_activity'))->toBeLessThan(time() - 30);
        $rows->write('one', 'a:1:{s:1:"x";i:2;}');
        expect((int) DB::table('sessions')->where('id', 'one')->value('last_activity'))->toBeGreaterThan(time() - 30);
        DB::table('sessions')->update(['last_activity' => time() - Lifetime::Idle->value - 1]);
        $rows->gc(90 * 86400);
        expect(DB::table('sessions')->pluck('id')->all())->toBe(['two']);
        DB::table('sessions')->update(['last_activity' => time() - 91 * 86400]);
        $rows->gc(90 * 86400);
        expect(DB::table('sessions')->count())->toBe(0);
    },
);

it('ends with the browser unless it stays', function (): void {
    $response = $this->get('/')->assertOk();
    $cookie = collect($response->headers->getCookies())->first(fn($c): bool => str_contains($c->getName(), 'session'));
    expect($cookie?->getExpiresTime())->toBe(0);
});
