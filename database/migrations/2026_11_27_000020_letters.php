<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Letters to families, what schools write in them, and what was printed in the last day. */
return new class extends Migration {
    private const ID = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';

    public function up(): void
    {
        $id = self::ID;
        $word = fn(int $length): string => "VARCHAR($length) CHARACTER SET ascii COLLATE ascii_bin";
        DB::statement(
            "CREATE TABLE family_letters (
                id $id NOT NULL PRIMARY KEY,
                version BIGINT UNSIGNED NOT NULL DEFAULT 0,
                student_id $id NOT NULL,
                language {$word(12)} NOT NULL,
                token_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL UNIQUE,
                state ENUM('live', 'ended') NOT NULL,
                slip {$word(10)} NOT NULL UNIQUE,
                made_at DATETIME NOT NULL,
                ended_at DATETIME NULL,
                returned_at DATETIME NULL,
                FOREIGN KEY (student_id) REFERENCES people (id)
            )",
        );
        DB::statement(
            "CREATE TABLE letter_wordings (
                id $id NOT NULL PRIMARY KEY,
                version BIGINT UNSIGNED NOT NULL DEFAULT 0,
                school_id $id NOT NULL,
                kind {$word(12)} NOT NULL,
                language {$word(12)} NOT NULL,
                texts TEXT NOT NULL,
                UNIQUE (school_id, kind, language),
                FOREIGN KEY (school_id) REFERENCES schools (id)
            )",
        );
        DB::statement(
            "CREATE TABLE print_runs (
                id $id NOT NULL PRIMARY KEY,
                school_id $id NOT NULL,
                section_id $id NULL,
                person_id $id NOT NULL,
                what VARCHAR(160) NOT NULL,
                state ENUM('waiting', 'working', 'done', 'failed') NOT NULL,
                done INT UNSIGNED NOT NULL DEFAULT 0,
                total INT UNSIGNED NOT NULL,
                problem TEXT NULL,
                field {$word(40)} NULL,
                sealed LONGBLOB NULL,
                made_at DATETIME NOT NULL,
                expires_at DATETIME NOT NULL,
                INDEX (person_id, school_id, made_at),
                INDEX (expires_at),
                FOREIGN KEY (school_id) REFERENCES schools (id),
                FOREIGN KEY (section_id) REFERENCES sections (id),
                FOREIGN KEY (person_id) REFERENCES people (id)
            )",
        );
    }

    public function down(): void
    {
        foreach (['print_runs', 'letter_wordings', 'family_letters'] as $table) {
            Schema::dropIfExists($table);
        }
    }
};
