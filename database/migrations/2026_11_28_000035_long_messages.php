<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** A letter whose places are filled for each may be longer than 64 kB, as its HTML could be already. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE outgoing_messages MODIFY text MEDIUMTEXT NOT NULL');
    }

    public function down(): void
    {
        DB::statement('ALTER TABLE outgoing_messages MODIFY text TEXT NOT NULL');
    }
};
