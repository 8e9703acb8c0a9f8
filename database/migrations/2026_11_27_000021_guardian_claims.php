<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Who says to be a guardian, by the code of a family letter, until the school has checked. */
return new class extends Migration {
    public function up(): void
    {
        $id = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';
        DB::statement(
            "CREATE TABLE guardian_claims (
                id $id NOT NULL PRIMARY KEY,
                version BIGINT UNSIGNED NOT NULL DEFAULT 0,
                letter_id $id NOT NULL,
                student_id $id NOT NULL,
                person_id $id NULL,
                given_name VARCHAR(120) NOT NULL,
                family_name VARCHAR(120) NOT NULL,
                email VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
                phone VARCHAR(20) NULL,
                state ENUM('waiting', 'approved', 'refused') NOT NULL,
                reason VARCHAR(300) NULL,
                made_at DATETIME NOT NULL,
                answered_at DATETIME NULL,
                INDEX (student_id, state),
                FOREIGN KEY (letter_id) REFERENCES family_letters (id),
                FOREIGN KEY (student_id) REFERENCES people (id),
                FOREIGN KEY (person_id) REFERENCES people (id)
            )",
        );
    }

    public function down(): void
    {
        Schema::dropIfExists('guardian_claims');
    }
};
