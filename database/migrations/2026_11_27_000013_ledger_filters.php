<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** A ledger is asked for by who did it, by day and by what kind of thing it was. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('ledger_entries', function (Blueprint $table): void {
            $table->index(['school_id', 'actor_id']);
            $table->index('made_at');
            $table->index('action');
        });
    }

    public function down(): void
    {
        Schema::table('ledger_entries', function (Blueprint $table): void {
            $table->dropIndex(['school_id', 'actor_id']);
            $table->dropIndex(['made_at']);
            $table->dropIndex(['action']);
        });
    }
};
