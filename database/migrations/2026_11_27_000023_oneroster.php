<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Programs that read rosters, and what they are told of changes. */
return new class extends Migration {
    private const ID = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';

    public function up(): void
    {
        $id = self::ID;
        $hash = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin';
        // When a record was last other than before, by whatever wrote, undid or repeated it.
        DB::statement(
            "CREATE TABLE roster_touched (
                row_id $id NOT NULL PRIMARY KEY,
                at DATETIME(3) NOT NULL,
                INDEX (at)
            )",
        );
        DB::statement(
            "CREATE TABLE roster_keys (
                id $id NOT NULL PRIMARY KEY,
                school_id $id NOT NULL,
                name VARCHAR(80) NOT NULL,
                secret_hash $hash NOT NULL,
                scopes JSON NOT NULL,
                made_at DATETIME NOT NULL,
                made_by $id NOT NULL,
                last_used_at DATETIME NULL,
                last_used_for VARCHAR(60) NULL,
                ended_at DATETIME NULL,
                ended_by $id NULL,
                INDEX (school_id, made_at),
                FOREIGN KEY (school_id) REFERENCES schools (id),
                FOREIGN KEY (made_by) REFERENCES people (id),
                FOREIGN KEY (ended_by) REFERENCES people (id)
            )",
        );
        DB::statement(
            "CREATE TABLE roster_tokens (
                token_hash $hash NOT NULL PRIMARY KEY,
                key_id $id NOT NULL,
                scopes JSON NOT NULL,
                expires_at DATETIME NOT NULL,
                INDEX (expires_at),
                FOREIGN KEY (key_id) REFERENCES roster_keys (id) ON DELETE CASCADE
            )",
        );
    }

    public function down(): void
    {
        foreach (['roster_tokens', 'roster_keys', 'roster_touched'] as $table) {
            Schema::dropIfExists($table);
        }
    }
};
