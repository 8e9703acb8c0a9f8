<?php

declare(strict_types=1);

namespace App\Platform;

/** Where jobs wait. */
final class Queues
{
    /** Whether in the database that the records are in, so that one transaction holds both. */
    public static function inDatabase(): bool
    {
        $queue = (string) config('queue.default');

        return config("queue.connections.$queue.driver") === 'database' &&
            in_array(config("queue.connections.$queue.connection"), [null, config('database.default')], true);
    }
}
