<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What a school or a section says to students and families: notices, dates, and work that is due. */
return new class extends Migration {
    public function up(): void
    {
        $id = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';
        DB::statement(
            "CREATE TABLE notices (
                id $id NOT NULL PRIMARY KEY,
                version BIGINT UNSIGNED NOT NULL DEFAULT 0,
                school_id $id NOT NULL,
                section_id $id NULL,
                kind ENUM('notice', 'date', 'work') NOT NULL,
                readers ENUM('all', 'guardians') NOT NULL,
                title VARCHAR(120) NOT NULL,
                body VARCHAR(2000) NULL,
                on_day DATE NULL,
                texts TEXT NULL,
                state ENUM('live', 'withdrawn') NOT NULL,
                gone_through_at DATETIME NULL,
                made_by $id NULL,
                made_at DATETIME NOT NULL,
                INDEX (section_id, state, made_at),
                INDEX (school_id, section_id, state, made_at),
                FOREIGN KEY (school_id) REFERENCES schools (id),
                FOREIGN KEY (section_id) REFERENCES sections (id),
                FOREIGN KEY (made_by) REFERENCES people (id)
            )",
        );
        DB::statement(
            "CREATE TABLE work_results (
                id $id NOT NULL PRIMARY KEY,
                version BIGINT UNSIGNED NOT NULL DEFAULT 0,
                notice_id $id NOT NULL,
                person_id $id NOT NULL,
                state ENUM('done', 'missing', 'excused') NOT NULL,
                UNIQUE (notice_id, person_id),
                INDEX (person_id),
                FOREIGN KEY (notice_id) REFERENCES notices (id),
                FOREIGN KEY (person_id) REFERENCES people (id)
            )",
        );
        DB::statement(
            "CREATE TABLE notice_seen (
                notice_id $id NOT NULL,
                person_id $id NOT NULL,
                seen_at DATETIME NOT NULL,
                PRIMARY KEY (notice_id, person_id),
                INDEX (person_id),
                FOREIGN KEY (notice_id) REFERENCES notices (id),
                FOREIGN KEY (person_id) REFERENCES people (id)
            )",
        );
    }

    public function down(): void
    {
        foreach (['notice_seen', 'work_results', 'notices'] as $table) {
            Schema::dropIfExists($table);
        }
    }
};
