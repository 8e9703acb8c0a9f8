<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** How much of a name others read, which name user names are made from, and the language a family is written to in. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            'ALTER TABLE people ADD language VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NULL AFTER phone, ' .
                'ADD name_shown VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NULL AFTER preferred_name',
        );
        DB::statement(
            'ALTER TABLE schools ' .
                "ADD name_shown VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'full', " .
                "ADD user_names_from VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'legal'",
        );
    }

    public function down(): void
    {
        DB::statement('ALTER TABLE schools DROP COLUMN user_names_from, DROP COLUMN name_shown');
        DB::statement('ALTER TABLE people DROP COLUMN name_shown, DROP COLUMN language');
    }
};
