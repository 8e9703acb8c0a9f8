<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Schedule;

// While schools sleep; on one server where there are several.
Schedule::command('vantrel:clean-up')->dailyAt('02:30')->withoutOverlapping()->onOneServer();

// After school, by each school's own clock: who was invited a week ago and has not answered is reminded once.
Schedule::command('vantrel:remind-guardians')->hourly()->withoutOverlapping()->onOneServer();

// Mail whose time has come, and mail that came back.
Schedule::command('vantrel:mail')->everyMinute()->withoutOverlapping(5)->onOneServer();

// At the hours families have chosen, by each school's own clock: some are at the half or the quarter of ours.
Schedule::command('vantrel:digests')->everyFifteenMinutes()->withoutOverlapping(30)->onOneServer();

// What a kill has left half-said is found within a minute.
Schedule::command('vantrel:sweep')->everyMinute()->withoutOverlapping()->onOneServer();

// Whom something was written about and nobody has looked at since.
Schedule::command('vantrel:settle')->everyMinute()->withoutOverlapping(10)->onOneServer();

// Whom a worker has not come to: one that was killed, or none that runs.
Schedule::command('vantrel:look-alikes')->everyMinute()->withoutOverlapping()->onOneServer();

// What has changed in the schools' records, where a school wants it so.
Schedule::command('vantrel:pull-record')->dailyAt('02:50')->withoutOverlapping()->onOneServer();

// How likely two are one goes by how common their names are, which others change: once a night everyone is looked at.
Schedule::command('vantrel:look-alikes --all')->dailyAt('03:10')->withoutOverlapping()->onOneServer();

// As it stands in the evening, so that a week stays as it was on its last day.
Schedule::command('vantrel:coverage')->dailyAt('21:30')->withoutOverlapping()->onOneServer();

// Prints hold passphrases: they are kept for a day and not much longer.
Schedule::command('vantrel:clear-prints')->everyFifteenMinutes()->withoutOverlapping()->onOneServer();
