<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Guardians who ask without a letter: what they wrote of a child, until the school has found it. */
return new class extends Migration {
    public function up(): void
    {
        $id = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';
        DB::statement(
            "CREATE TABLE family_askings (
                id $id NOT NULL PRIMARY KEY,
                school_id $id NOT NULL,
                person_id $id NULL,
                given_name VARCHAR(120) NOT NULL,
                family_name VARCHAR(120) NOT NULL,
                email VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
                phone VARCHAR(20) NULL,
                child_given VARCHAR(120) NOT NULL,
                child_family VARCHAR(120) NOT NULL,
                child_birth_date DATE NOT NULL,
                state ENUM('waiting', 'refused') NOT NULL,
                reason VARCHAR(300) NULL,
                made_at DATETIME NOT NULL,
                claim_id $id NULL,
                answered_at DATETIME NULL,
                answered_by $id NULL,
                INDEX (school_id, state, made_at),
                INDEX (email),
                INDEX (claim_id),
                FOREIGN KEY (school_id) REFERENCES schools (id),
                FOREIGN KEY (person_id) REFERENCES people (id),
                FOREIGN KEY (answered_by) REFERENCES people (id)
            )",
        );
    }

    public function down(): void
    {
        Schema::dropIfExists('family_askings');
    }
};
