<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * The day at the school on which a list was planned: applied after midnight, it is still the plan that was looked at.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('imports', function (Blueprint $table): void {
            $table->date('planned_on')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('imports', function (Blueprint $table): void {
            $table->dropColumn('planned_on');
        });
    }
};
