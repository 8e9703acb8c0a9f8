<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Guardians who ask what is held about their child, and what the school has answered. */
return new class extends Migration {
    public function up(): void
    {
        $id = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';
        DB::statement(
            "CREATE TABLE held_askings (
                id $id NOT NULL PRIMARY KEY,
                student_id $id NOT NULL,
                guardian_id $id NOT NULL,
                state ENUM('waiting', 'given', 'refused') NOT NULL,
                reason VARCHAR(300) NULL,
                made_at DATETIME NOT NULL,
                answered_at DATETIME NULL,
                answered_by $id NULL,
                UNIQUE (student_id, guardian_id),
                INDEX (state, made_at),
                FOREIGN KEY (student_id) REFERENCES people (id),
                FOREIGN KEY (guardian_id) REFERENCES people (id),
                FOREIGN KEY (answered_by) REFERENCES people (id)
            )",
        );
    }

    public function down(): void
    {
        Schema::dropIfExists('held_askings');
    }
};
