<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Letters to many as texts too, with files, from words that are kept; a school’s own quiet hours. */
return new class extends Migration {
    public function up(): void
    {
        $id = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';
        DB::statement("ALTER TABLE mailings ADD sent_by ENUM('mail', 'text', 'either') NOT NULL DEFAULT 'mail'");
        DB::statement(
            'ALTER TABLE schools
                ADD quiet_from TINYINT UNSIGNED NOT NULL DEFAULT 20,
                ADD quiet_to TINYINT UNSIGNED NOT NULL DEFAULT 7',
        );
        // Kept once for all who get the letter; without one, for a day, by whoever brought them.
        DB::statement(
            "CREATE TABLE mailing_files (
                id $id NOT NULL PRIMARY KEY,
                school_id $id NOT NULL,
                person_id $id NOT NULL,
                mailing_id $id NULL,
                name VARCHAR(120) NOT NULL,
                type VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
                size INT UNSIGNED NOT NULL,
                content MEDIUMBLOB NOT NULL,
                made_at DATETIME NOT NULL,
                INDEX (mailing_id, id),
                INDEX (made_at),
                FOREIGN KEY (school_id) REFERENCES schools (id),
                FOREIGN KEY (mailing_id) REFERENCES mailings (id) ON DELETE CASCADE
            )",
        );
        // Whose they are; nobody’s where they are the school’s.
        DB::statement(
            "CREATE TABLE letter_templates (
                id $id NOT NULL PRIMARY KEY,
                school_id $id NOT NULL,
                person_id $id NULL,
                name VARCHAR(60) NOT NULL,
                texts MEDIUMTEXT NOT NULL,
                made_at DATETIME NOT NULL,
                INDEX (school_id, person_id),
                FOREIGN KEY (school_id) REFERENCES schools (id)
            )",
        );
    }

    public function down(): void
    {
        Schema::dropIfExists('letter_templates');
        Schema::dropIfExists('mailing_files');
        Schema::table('schools', fn($table) => $table->dropColumn(['quiet_from', 'quiet_to']));
        Schema::table('mailings', fn($table) => $table->dropColumn('sent_by'));
    }
};
