<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** The school's record: the system that a school's lists come from, asked by OneRoster. */
return new class extends Migration {
    public function up(): void
    {
        $id = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';
        DB::statement(
            "CREATE TABLE record_sources (
                school_id $id NOT NULL PRIMARY KEY,
                base_url VARCHAR(300) NOT NULL,
                token_url VARCHAR(300) NOT NULL,
                client_id VARCHAR(200) NOT NULL,
                sealed_key TEXT NOT NULL,
                nightly TINYINT(1) NOT NULL DEFAULT 0,
                most_new INT UNSIGNED NOT NULL DEFAULT 30,
                most_changed INT UNSIGNED NOT NULL DEFAULT 200,
                pulled_at DATETIME(3) NULL,
                pulled_whole_at DATETIME(3) NULL,
                settled_at DATETIME(3) NULL,
                list_id $id NULL,
                said VARCHAR(500) NULL,
                changed_at DATETIME NOT NULL,
                changed_by $id NULL,
                FOREIGN KEY (school_id) REFERENCES schools (id),
                FOREIGN KEY (changed_by) REFERENCES people (id)
            )",
        );
    }

    public function down(): void
    {
        Schema::dropIfExists('record_sources');
    }
};
