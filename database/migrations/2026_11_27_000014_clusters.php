<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Which cluster a pair of look-alikes belongs to; and grown-ups are held against each other too. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('look_alikes', function (Blueprint $table): void {
            // The smallest id of its accounts; none where the cluster keeps its other links and not this one.
            $table->char('cluster', 26)->charset('ascii')->collation('ascii_bin')->default('');
            $table->index(['school_id', 'cluster']);
        });
        DB::statement('INSERT IGNORE INTO look_alike_todo SELECT id, NOW(6) FROM people');
    }

    public function down(): void
    {
        Schema::table('look_alikes', function (Blueprint $table): void {
            $table->dropIndex(['school_id', 'cluster']);
            $table->dropColumn('cluster');
        });
    }
};
