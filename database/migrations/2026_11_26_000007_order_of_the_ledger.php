<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * An entry that was done again stands, in the order of what was done, where it was done again. A school has one current
 * year. Lists are applied in turn. An archived section leaves its name to others.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('ledger_entries', function (Blueprint $table): void {
            $table->unsignedBigInteger('redone_as')->nullable();
        });
        Schema::create('intake_turns', function (Blueprint $table): void {
            $table->unsignedTinyInteger('id')->primary();
            $table->unsignedBigInteger('taken')->default(0);
        });
        DB::table('intake_turns')->insert(['id' => 1]);
        DB::statement(
            "ALTER TABLE sections ADD open_now TINYINT GENERATED ALWAYS AS (IF(state = 'open', 1, NULL)) " .
                'STORED INVISIBLE, ADD UNIQUE sections_open_name (school_year_id, name, open_now), DROP INDEX ' .
                'sections_school_year_id_name_unique',
        );
        // Where two are current from an undo of before, the later one is.
        DB::statement("UPDATE school_years y JOIN (
                SELECT school_id, MAX(begins_on) begins_on FROM school_years WHERE state = 'current' GROUP BY school_id
            ) k ON k.school_id = y.school_id
            SET y.state = 'closed' WHERE y.state = 'current' AND y.begins_on <> k.begins_on");
        DB::statement(
            "ALTER TABLE school_years ADD current_now TINYINT GENERATED ALWAYS AS (IF(state = 'current', 1, " .
                'NULL)) STORED INVISIBLE, ADD UNIQUE school_years_current (school_id, current_now)',
        );
    }

    public function down(): void
    {
        Schema::drop('intake_turns');
        DB::statement(
            'ALTER TABLE sections ADD UNIQUE sections_school_year_id_name_unique (school_year_id, name), ' .
                'DROP INDEX sections_open_name, DROP COLUMN open_now',
        );
        // The foreign key of `school_id` needs an index of its own once this one is gone.
        DB::statement(
            'ALTER TABLE school_years ADD INDEX school_years_school_id_index (school_id), DROP INDEX ' .
                'school_years_current, DROP COLUMN current_now',
        );
        Schema::table('ledger_entries', function (Blueprint $table): void {
            $table->dropColumn('redone_as');
        });
    }
};
