<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What was looked at when a letter was sent: the same letter is not sent twice where only the answer was lost. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            'ALTER TABLE mailings
                ADD seen CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL,
                ADD INDEX seen (seen)',
        );
    }

    public function down(): void
    {
        Schema::table('mailings', function ($table): void {
            $table->dropIndex('seen');
            $table->dropColumn('seen');
        });
    }
};
