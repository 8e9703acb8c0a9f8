<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Messages wait here until a gateway has them, and say what has become of them. */
return new class extends Migration {
    public function up(): void
    {
        $id = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';
        $word = fn(int $length): string => "VARCHAR($length) CHARACTER SET ascii COLLATE ascii_bin";
        // Whom it is for is no reference: the message stays as it was sent whatever becomes of the account.
        DB::statement(
            "ALTER TABLE outgoing_messages
                ADD via ENUM('mail', 'text') NOT NULL DEFAULT 'mail' AFTER school_id,
                ADD kind {$word(16)} NOT NULL DEFAULT 'account' AFTER via,
                ADD person_id $id NULL AFTER kind,
                ADD language {$word(8)} NOT NULL DEFAULT 'en' AFTER subject,
                ADD from_name VARCHAR(120) NOT NULL DEFAULT '' AFTER language,
                ADD state ENUM('kept', 'waiting', 'handing', 'sent', 'doubtful', 'refused', 'bounced', 'stopped')
                    NOT NULL DEFAULT 'kept',
                ADD tries TINYINT UNSIGNED NOT NULL DEFAULT 0,
                ADD next_at DATETIME NULL,
                ADD claim $id NULL,
                ADD claimed_until DATETIME NULL,
                ADD sent_at DATETIME NULL,
                ADD problem VARCHAR(300) NULL,
                ADD settled_at DATETIME NULL,
                ADD bare TINYINT(1) NOT NULL DEFAULT 0,
                ADD INDEX (state, next_at, id),
                ADD INDEX (state, claimed_until),
                ADD INDEX (claim),
                ADD INDEX (person_id, id),
                ADD INDEX (school_id, state, settled_at, id)",
        );
        // The children a message to a guardian tells of: it goes out only while all of them are still theirs.
        DB::statement(
            "CREATE TABLE message_children (
                message_id $id NOT NULL,
                student_id $id NOT NULL,
                PRIMARY KEY (message_id, student_id),
                INDEX (student_id),
                FOREIGN KEY (message_id) REFERENCES outgoing_messages (id) ON DELETE CASCADE
            )",
        );
        // Addresses that mail has come back from, until somebody has looked or the address is another.
        DB::statement(
            "CREATE TABLE bounced_addresses (
                address VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL PRIMARY KEY,
                message_id $id NOT NULL,
                said VARCHAR(300) NOT NULL,
                bounced_at DATETIME NOT NULL
            )",
        );
    }

    public function down(): void
    {
        Schema::dropIfExists('bounced_addresses');
        Schema::dropIfExists('message_children');
        $gone = [
            'via',
            'kind',
            'person_id',
            'language',
            'from_name',
            'state',
            'tries',
            'next_at',
            'claim',
            'claimed_until',
            'sent_at',
            'problem',
            'settled_at',
            'bare',
        ];
        Schema::table('outgoing_messages', fn($table) => $table->dropColumn($gone));
    }
};
