<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Letters to many: who wrote what to whom; each receiver’s own is a message of the outbox. */
return new class extends Migration {
    public function up(): void
    {
        $id = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';
        DB::statement(
            "CREATE TABLE mailings (
                id $id NOT NULL PRIMARY KEY,
                school_id $id NOT NULL,
                section_id $id NULL,
                person_id $id NOT NULL,
                whom VARCHAR(200) NOT NULL,
                subject VARCHAR(250) NOT NULL,
                goes_at DATETIME NOT NULL,
                made_at DATETIME NOT NULL,
                INDEX (school_id, made_at),
                FOREIGN KEY (school_id) REFERENCES schools (id),
                FOREIGN KEY (section_id) REFERENCES sections (id),
                FOREIGN KEY (person_id) REFERENCES people (id)
            )",
        );
        DB::statement(
            "ALTER TABLE outgoing_messages
                ADD mailing_id $id NULL,
                ADD reply_to VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
                ADD INDEX (mailing_id, state)",
        );
    }

    public function down(): void
    {
        Schema::table('outgoing_messages', fn($table) => $table->dropColumn(['mailing_id', 'reply_to']));
        Schema::dropIfExists('mailings');
    }
};
