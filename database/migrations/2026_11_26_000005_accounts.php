<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;
use Illuminate\Support\Str;

/**
 * Accounts: addresses compared as they are written and confirmed or not, coordinators and sign-on identities that can
 * end, what was used when and from where, requests between schools, entries that stand in several ledgers, and how long
 * things are kept.
 */
return new class extends Migration {
    /** Columns that hold an address: compared byte by byte after App's one canonical form. */
    private const ADDRESSES = [
        'people' => 'email VARCHAR(254) COLLATE utf8mb4_bin NULL',
        'invitations' => 'email VARCHAR(254) COLLATE utf8mb4_bin NOT NULL',
        'join_requests' => 'email VARCHAR(254) COLLATE utf8mb4_bin NULL',
        'outgoing_messages' => 'to_address VARCHAR(254) COLLATE utf8mb4_bin NOT NULL',
    ];

    public function up(): void
    {
        foreach (self::ADDRESSES as $table => $column) {
            DB::statement("ALTER TABLE $table MODIFY $column");
        }
        Schema::table('people', function (Blueprint $table): void {
            $table
                ->enum('email_state', ['claimed', 'confirmed'])
                ->default('claimed')
                ->after('email');
            // Who gave or confirmed it: a list, somebody by hand, an invitation, the person at the door; the school, a
            // mail, the sign-on.
            $table
                ->enum('email_by', ['list', 'hand', 'door', 'school', 'mail', 'sign_on'])
                ->nullable()
                ->after('email_state');
            $table->dateTime('email_at')->nullable()->after('email_by');
        });
        // Staff have signed in with their addresses, and guardians had theirs from the mail that led them here.
        DB::statement(
            "UPDATE people p SET p.email_state = 'confirmed', p.email_by = 'mail', p.email_at = " .
                "UTC_TIMESTAMP() WHERE p.email IS NOT NULL AND p.kind <> 'student' AND EXISTS (SELECT 1 FROM " .
                'sign_ins i WHERE i.person_id = p.id AND i.user_name = p.email AND i.last_signed_in_at IS NOT ' .
                'NULL)',
        );
        DB::statement(
            "UPDATE people p JOIN schools s ON s.id = p.school_id SET p.email_state = 'confirmed', " .
                "p.email_by = 'school', p.email_at = UTC_TIMESTAMP() WHERE p.kind <> 'guardian' AND " .
                "p.email_state = 'claimed' AND p.email IS NOT NULL AND JSON_CONTAINS(s.mail_domains, " .
                "JSON_QUOTE(SUBSTRING_INDEX(p.email, '@', -1))) AND NOT EXISTS (SELECT 1 FROM join_requests r " .
                'WHERE r.person_id = p.id AND r.email = p.email)',
        );
        Schema::table('sign_ins', function (Blueprint $table): void {
            // Set by somebody else: to be changed at the first sign-in.
            $table->boolean('temporary')->default(false)->after('password');
        });
        // Nine symbols and their check.
        DB::statement('ALTER TABLE join_codes MODIFY code VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL');
        $this->coordinators();
        Schema::table('identities', function (Blueprint $table): void {
            $table->unsignedBigInteger('version')->default(0)->after('id');
            $table->enum('state', ['live', 'ended'])->default('live');
            $table->dateTime('ended_at')->nullable();
            $table->index(['person_id', 'issuer']);
        });
        Schema::table('password_resets', function (Blueprint $table): void {
            $table->string('address', 254)->collation('utf8mb4_bin')->nullable();
            $table->dateTime('made_at')->nullable();
            $table->index(['expires_at']);
        });
        Schema::create('credential_uses', function (Blueprint $table): void {
            $this->ref($table, 'person_id', 'people');
            $table->enum('way', ['password', 'passphrase', 'badge', 'sign_on', 'room_pass']);
            $table->char('credential_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->dateTime('last_at');
            $table->string('address', 45);
            $table->string('device', 40);
            $table->unsignedInteger('times');
            $table->primary(['person_id', 'way', 'credential_id']);
        });
        Schema::create('transfer_requests', function (Blueprint $table): void {
            $this->key($table);
            $table->unsignedBigInteger('version')->default(0);
            $this->ref($table, 'person_id', 'people');
            $this->ref($table, 'from_school_id', 'schools');
            $this->ref($table, 'to_school_id', 'schools');
            $table->enum('kind', ['transfer', 'also']);
            $table->enum('state', ['waiting', 'accepted', 'refused', 'withdrawn']);
            // What the list says of the student: only the school that asks has seen it, until the other one does.
            $table->json('said');
            $this->ref($table, 'asked_by', 'people', true);
            $table->dateTime('made_at');
            $table->dateTime('answered_at')->nullable();
            $this->ref($table, 'answered_by', 'people', true);
            $table->index(['from_school_id', 'state']);
            $table->index(['to_school_id', 'state']);
        });
        DB::statement(
            "ALTER TABLE transfer_requests ADD open_now TINYINT GENERATED ALWAYS AS (IF(state = 'waiting', " .
                '1, NULL)) STORED INVISIBLE, ADD UNIQUE transfer_requests_open (person_id, to_school_id, ' .
                'open_now)',
        );
        // An entry stands in the ledger of every school whose people it wrote.
        Schema::create('ledger_schools', function (Blueprint $table): void {
            $this->ref($table, 'school_id', 'schools');
            $table->unsignedBigInteger('entry_seq');
            $table->foreign('entry_seq')->references('seq')->on('ledger_entries');
            $table->primary(['school_id', 'entry_seq']);
        });
        DB::statement('INSERT INTO ledger_schools (school_id, entry_seq) SELECT school_id, seq FROM ledger_entries');
        DB::table('ledger_entries')
            ->where('action', 'setting')
            ->update(['action' => 'settings']);
        Schema::table('schools', function (Blueprint $table): void {
            $table->unsignedSmallInteger('keep_askings_days')->default(60);
            $table->unsignedSmallInteger('keep_lists_days')->default(90);
            $table->unsignedSmallInteger('keep_messages_days')->default(180);
        });
        Schema::table('join_requests', function (Blueprint $table): void {
            // The sign-in that got the password chosen at the door, where one did.
            $this->ref($table, 'sign_in_id', 'sign_ins', true);
        });
        Schema::table('imports', function (Blueprint $table): void {
            // When the uploaded files were cleared away; the list itself and what came of it stay.
            $table->dateTime('cleared_at')->nullable();
        });
        Schema::table('sessions', function (Blueprint $table): void {
            $table->string('way', 12)->default('');
        });
        // Sessions opened before do not say by what, so they are over.
        DB::table('sessions')->delete();
    }

    public function down(): void
    {
        Schema::table('sessions', fn(Blueprint $table) => $table->dropColumn('way'));
        Schema::table('imports', fn(Blueprint $table) => $table->dropColumn('cleared_at'));
        Schema::table('join_requests', function (Blueprint $table): void {
            $table->dropForeign(['sign_in_id']);
            $table->dropColumn('sign_in_id');
        });
        Schema::table(
            'schools',
            fn(Blueprint $table) => $table->dropColumn(['keep_askings_days', 'keep_lists_days', 'keep_messages_days']),
        );
        foreach (['ledger_schools', 'transfer_requests', 'credential_uses'] as $table) {
            Schema::dropIfExists($table);
        }
        Schema::table('password_resets', function (Blueprint $table): void {
            $table->dropIndex(['expires_at']);
            $table->dropColumn(['address', 'made_at']);
        });
        DB::table('identities')->where('state', 'ended')->delete();
        Schema::table('identities', function (Blueprint $table): void {
            $table->dropIndex(['person_id', 'issuer']);
            $table->dropColumn(['version', 'state', 'ended_at']);
        });
        DB::table('coordinators')->where('state', 'ended')->delete();
        DB::statement(
            'ALTER TABLE coordinators DROP PRIMARY KEY, DROP INDEX coordinators_person_school, DROP COLUMN ' .
                'id, DROP COLUMN version, DROP COLUMN state, ADD PRIMARY KEY (person_id, school_id)',
        );
        Schema::table('sign_ins', fn(Blueprint $table) => $table->dropColumn('temporary'));
        Schema::table('people', fn(Blueprint $table) => $table->dropColumn(['email_state', 'email_by', 'email_at']));
        foreach (self::ADDRESSES as $table => $column) {
            DB::statement("ALTER TABLE $table MODIFY " . str_replace('utf8mb4_bin', 'utf8mb4_uca1400_ai_ci', $column));
        }
    }

    private function coordinators(): void
    {
        Schema::table('coordinators', function (Blueprint $table): void {
            $table->char('id', 26)->charset('ascii')->collation('ascii_bin')->default('')->first();
            $table->unsignedBigInteger('version')->default(0)->after('id');
            $table->enum('state', ['active', 'ended'])->default('active');
        });
        foreach (DB::table('coordinators')->get(['person_id', 'school_id']) as $row) {
            DB::table('coordinators')
                ->where('person_id', $row->person_id)
                ->where('school_id', $row->school_id)
                ->update(['id' => (string) Str::ulid()]);
        }
        // The new index first: the foreign key of person_id needs one at every moment.
        DB::statement(
            'ALTER TABLE coordinators ADD UNIQUE coordinators_person_school (person_id, school_id), DROP ' .
                'PRIMARY KEY, MODIFY id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, ADD PRIMARY KEY ' .
                '(id)',
        );
    }

    private function key(Blueprint $table): void
    {
        $table->char('id', 26)->charset('ascii')->collation('ascii_bin')->primary();
    }

    private function ref(Blueprint $table, string $column, string $to, bool $nullable = false): void
    {
        $table->char($column, 26)->charset('ascii')->collation('ascii_bin')->nullable($nullable);
        $table->foreign($column)->references('id')->on($to);
    }
};
