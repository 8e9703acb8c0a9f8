<?php

declare(strict_types=1);

use App\Roll\SearchIndex;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** The given name somebody goes by, beside the one on record; and the one of the two they are called by. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            'ALTER TABLE people ADD preferred_name VARCHAR(120) NULL AFTER family_name, ' .
                'ADD called_name VARCHAR(120) GENERATED ALWAYS AS (IFNULL(preferred_name, given_name)) STORED INVISIBLE',
        );
        // Those there are already are found by all of their words, this one among them.
        app(SearchIndex::class)->all();
    }

    public function down(): void
    {
        DB::statement('ALTER TABLE people DROP COLUMN called_name, DROP COLUMN preferred_name');
    }
};
