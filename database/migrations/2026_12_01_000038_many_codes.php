<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Why somebody waits: many wrong codes came that day, so whoever comes by one is looked at first. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            "ALTER TABLE join_requests MODIFY cause ENUM('newcomer', 'domain', 'under_13', 'invited', 'many_codes') " .
                'NOT NULL',
        );
    }

    public function down(): void
    {
        DB::table('join_requests')
            ->where('cause', 'many_codes')
            ->update(['cause' => 'newcomer']);
        DB::statement(
            "ALTER TABLE join_requests MODIFY cause ENUM('newcomer', 'domain', 'under_13', 'invited') NOT NULL",
        );
    }
};
