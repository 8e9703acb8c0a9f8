<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Guardians invited, connected and ended, each with who and when; what they choose for themselves. */
return new class extends Migration {
    private const ID = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';

    public function up(): void
    {
        $id = self::ID;
        $word = fn(int $length): string => "VARCHAR($length) CHARACTER SET ascii COLLATE ascii_bin";
        DB::statement(
            "ALTER TABLE guardianships
                ADD state_at DATETIME NULL,
                ADD state_by $id NULL,
                ADD consent_on DATE NULL,
                ADD consent_way {$word(12)} NULL,
                ADD INDEX (state, state_at),
                ADD FOREIGN KEY (state_by) REFERENCES people (id)",
        );
        DB::statement(
            "ALTER TABLE people
                ADD phone_confirmed VARCHAR(20) NULL",
        );
        DB::statement(
            "ALTER TABLE schools
                ADD guardians_in {$word(8)} NOT NULL DEFAULT 'at_once',
                ADD remind_guardians TINYINT(1) NOT NULL DEFAULT 1",
        );
        // Whoever follows a link may have to be looked at too: then there is no letter.
        DB::statement("ALTER TABLE guardian_claims MODIFY letter_id $id NULL, ADD suggested_id $id NULL,
            ADD FOREIGN KEY (suggested_id) REFERENCES people (id)");
        DB::statement(
            "CREATE TABLE guardian_invitations (
                id $id NOT NULL PRIMARY KEY,
                version BIGINT UNSIGNED NOT NULL DEFAULT 0,
                school_id $id NOT NULL,
                guardian_id $id NOT NULL,
                email VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
                token_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL UNIQUE,
                state ENUM('open', 'used', 'ended') NOT NULL,
                sent_at DATETIME NOT NULL,
                expires_at DATETIME NOT NULL,
                reminded_at DATETIME NULL,
                answered_at DATETIME NULL,
                invited_by $id NULL,
                open_now TINYINT AS (IF(state = 'open', 1, NULL)) PERSISTENT,
                UNIQUE (guardian_id, school_id, open_now),
                INDEX (state, sent_at),
                FOREIGN KEY (school_id) REFERENCES schools (id),
                FOREIGN KEY (guardian_id) REFERENCES people (id),
                FOREIGN KEY (invited_by) REFERENCES people (id)
            )",
        );
        // How often somebody wants to hear, where they have said so.
        DB::statement(
            "CREATE TABLE digest_choices (
                person_id $id NOT NULL PRIMARY KEY,
                often ENUM('daily', 'weekly', 'off') NOT NULL,
                at_hour TINYINT UNSIGNED NOT NULL,
                FOREIGN KEY (person_id) REFERENCES people (id)
            )",
        );
        // Invitations whose mail has yet to be handed over: written with them, taken away with the mail.
        DB::statement(
            "CREATE TABLE guardian_outbox (
                invitation_id $id NOT NULL PRIMARY KEY,
                school_id $id NOT NULL,
                run_id $id NULL,
                INDEX (school_id, invitation_id),
                INDEX (run_id),
                FOREIGN KEY (invitation_id) REFERENCES guardian_invitations (id)
            )",
        );
        DB::statement(
            "CREATE TABLE invite_runs (
                id $id NOT NULL PRIMARY KEY,
                school_id $id NOT NULL,
                person_id $id NOT NULL,
                whom JSON NOT NULL,
                state ENUM('waiting', 'working', 'done', 'failed') NOT NULL,
                done INT UNSIGNED NOT NULL DEFAULT 0,
                total INT UNSIGNED NOT NULL DEFAULT 0,
                said VARCHAR(500) NULL,
                made_at DATETIME NOT NULL,
                INDEX (school_id, made_at),
                FOREIGN KEY (school_id) REFERENCES schools (id),
                FOREIGN KEY (person_id) REFERENCES people (id)
            )",
        );
        // A new address or number of somebody's own, until both the new and the old one have answered.
        DB::statement(
            "CREATE TABLE contact_changes (
                id $id NOT NULL PRIMARY KEY,
                person_id $id NOT NULL UNIQUE,
                what ENUM('email', 'phone') NOT NULL,
                value VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
                new_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
                old_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL,
                tries TINYINT UNSIGNED NOT NULL DEFAULT 0,
                made_at DATETIME NOT NULL,
                expires_at DATETIME NOT NULL,
                INDEX (expires_at),
                FOREIGN KEY (person_id) REFERENCES people (id)
            )",
        );
    }

    public function down(): void
    {
        foreach (
            ['contact_changes', 'invite_runs', 'guardian_outbox', 'digest_choices', 'guardian_invitations']
            as $table
        ) {
            Schema::dropIfExists($table);
        }
    }
};
