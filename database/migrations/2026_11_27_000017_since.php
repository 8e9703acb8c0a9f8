<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Since when somebody has a problem; and how far the accounts of a school have come, week by week. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('roll_problems', function (Blueprint $table): void {
            $table->date('since')->default('2026-11-27');
            $table->index(['school_id', 'problem', 'since']);
        });
        Schema::create('coverage_weeks', function (Blueprint $table): void {
            foreach (['school_id', 'part'] as $id) {
                $table->char($id, 26)->charset('ascii')->collation('ascii_bin');
            }
            // A part is a section by its id, a grade by its code, or '' for the whole school; a week is its Monday.
            $table->date('week');
            foreach (['students', 'signed_in', 'carded', 'connected'] as $count) {
                $table->unsignedSmallInteger($count);
            }
            $table->dateTime('counted_at');
            $table->primary(['school_id', 'week', 'part']);
        });
        // A day on which more is kept is a day to work everybody out anew.
        DB::table('roll_days')->delete();
    }

    public function down(): void
    {
        Schema::dropIfExists('coverage_weeks');
        Schema::table('roll_problems', function (Blueprint $table): void {
            $table->dropIndex(['school_id', 'problem', 'since']);
            $table->dropColumn('since');
        });
    }
};
