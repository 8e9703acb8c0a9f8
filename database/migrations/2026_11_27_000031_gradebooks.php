<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Work that a gradebook keeps: met again by the id it has there. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            "ALTER TABLE notices
                ADD source_key VARCHAR(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
                ADD INDEX (section_id, source_key(40))",
        );
    }

    public function down(): void
    {
        Schema::table('notices', fn($table) => $table->dropColumn('source_key'));
    }
};
