<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Who has which problem is kept; that follows from the records and is made when a school is first looked at. The Roll
 * has an index for each of its orders, whose columns are never null, so that a page begins where the last one ended.
 */
return new class extends Migration {
    private const ORDERS = [
        'grade_order' =>
            "TINYINT GENERATED ALWAYS AS (FIELD(IFNULL(grade, ''), 'PK', 'KG', '01', '02', '03', '04', " .
            "'05', '06', '07', '08', '09', '10', '11', '12', '13'))",
        'number_order' => "VARCHAR(40) GENERATED ALWAYS AS (IFNULL(number, ''))",
        'email_order' => "VARCHAR(254) GENERATED ALWAYS AS (IFNULL(email, ''))",
    ];

    public function up(): void
    {
        Schema::create('roll_problems', function (Blueprint $table): void {
            $table->char('school_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->string('problem', 20)->charset('ascii')->collation('ascii_bin');
            $table->char('person_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->primary(['school_id', 'problem', 'person_id']);
            $table->index('person_id');
        });
        Schema::create('roll_days', function (Blueprint $table): void {
            $table->char('school_id', 26)->charset('ascii')->collation('ascii_bin')->primary();
            $table->date('day');
        });
        $add = [
            "ADD plain_number VARCHAR(40) GENERATED ALWAYS AS (NULLIF(TRIM(LEADING '0' FROM number), '')) " .
            'STORED INVISIBLE, ADD INDEX people_plain_number (school_id, kind, plain_number)',
        ];
        foreach (self::ORDERS as $column => $is) {
            $add[] =
                "ADD $column $is STORED INVISIBLE, ADD INDEX people_by_$column " .
                "(school_id, kind, state, $column, family_name, given_name, id)";
        }
        DB::statement('ALTER TABLE people ' . implode(', ', $add));
        DB::statement('ALTER TABLE enrollments ADD INDEX enrollments_role (section_id, role, begins_on, ends_on)');
    }

    public function down(): void
    {
        DB::statement('ALTER TABLE enrollments DROP INDEX enrollments_role');
        $drop = ['DROP INDEX people_plain_number, DROP COLUMN plain_number'];
        foreach (array_keys(self::ORDERS) as $column) {
            $drop[] = "DROP INDEX people_by_$column, DROP COLUMN $column";
        }
        DB::statement('ALTER TABLE people ' . implode(', ', $drop));
        Schema::dropIfExists('roll_days');
        Schema::dropIfExists('roll_problems');
    }
};
