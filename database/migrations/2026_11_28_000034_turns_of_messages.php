<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What somebody waits for goes out before what is for many: a new password not behind ten thousand letters. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            'ALTER TABLE outgoing_messages
                ADD turn TINYINT UNSIGNED NOT NULL DEFAULT 0,
                DROP INDEX state,
                ADD INDEX turns (state, turn, next_at, id)',
        );
        DB::table('outgoing_messages')
            ->whereIn('kind', ['letter', 'digest'])
            ->update(['turn' => 1]);
    }

    public function down(): void
    {
        Schema::table('outgoing_messages', function ($table): void {
            $table->dropIndex('turns');
            $table->index(['state', 'next_at', 'id'], 'state');
            $table->dropColumn('turn');
        });
    }
};
