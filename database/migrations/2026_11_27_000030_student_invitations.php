<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Students and families asked into a section by mail, each by a link of their own. */
return new class extends Migration {
    public function up(): void
    {
        $id = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';
        DB::statement(
            "CREATE TABLE student_invitations (
                id $id NOT NULL PRIMARY KEY,
                version BIGINT UNSIGNED NOT NULL DEFAULT 0,
                section_id $id NOT NULL,
                person_id $id NULL,
                guardian_id $id NULL,
                join_request_id $id NULL,
                email VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
                typed VARCHAR(254) NOT NULL,
                reader ENUM('student', 'family') NOT NULL,
                language VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
                token_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL UNIQUE,
                state ENUM('invited', 'asked', 'came', 'declined', 'withdrawn') NOT NULL,
                sent_at DATETIME NOT NULL,
                expires_at DATETIME NOT NULL,
                answered_at DATETIME NULL,
                invited_by $id NULL,
                INDEX (section_id, state),
                INDEX (email),
                FOREIGN KEY (section_id) REFERENCES sections (id),
                FOREIGN KEY (person_id) REFERENCES people (id),
                FOREIGN KEY (guardian_id) REFERENCES people (id),
                FOREIGN KEY (join_request_id) REFERENCES join_requests (id),
                FOREIGN KEY (invited_by) REFERENCES people (id)
            )",
        );
        // That a link has been looked at is no change of anything: it stands in no ledger.
        DB::statement(
            "CREATE TABLE student_invitations_opened (
                invitation_id $id NOT NULL PRIMARY KEY,
                opened_at DATETIME NOT NULL,
                FOREIGN KEY (invitation_id) REFERENCES student_invitations (id) ON DELETE CASCADE
            )",
        );
        DB::statement(
            "ALTER TABLE join_requests MODIFY cause ENUM('newcomer', 'domain', 'under_13', 'invited') NOT NULL",
        );
        // What a message is about, where that decides whether it still goes out.
        DB::statement("ALTER TABLE outgoing_messages ADD about_id $id NULL, ADD INDEX (about_id, id)");
    }

    public function down(): void
    {
        Schema::table('outgoing_messages', fn($table) => $table->dropColumn('about_id'));
        Schema::dropIfExists('student_invitations_opened');
        Schema::dropIfExists('student_invitations');
        DB::table('join_requests')
            ->where('cause', 'invited')
            ->update(['cause' => 'newcomer']);
        DB::statement("ALTER TABLE join_requests MODIFY cause ENUM('newcomer', 'domain', 'under_13') NOT NULL");
    }
};
