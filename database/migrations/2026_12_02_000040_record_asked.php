<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** A record is asked in the background: what for, and since when. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            "ALTER TABLE record_sources ADD asking ENUM('whole', 'changes') NULL, ADD asking_since DATETIME NULL",
        );
    }

    public function down(): void
    {
        DB::statement('ALTER TABLE record_sources DROP asking, DROP asking_since');
    }
};
