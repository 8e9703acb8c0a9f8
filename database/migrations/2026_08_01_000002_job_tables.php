<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * The tables of the job. Those a plan may change have a `version`: the number of the ledger entry that wrote the row
 * last, so that no number is ever used for two different contents.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('schools', function (Blueprint $table): void {
            $this->key($table);
            $table->string('code', 40)->unique();
            $table->string('name', 120);
            $table->tinyInteger('lowest_grade');
            $table->tinyInteger('highest_grade');
            $table->json('mail_domains');
            $table->string('time_zone', 60);
            $table->string('country', 2);
        });
        Schema::create('school_years', function (Blueprint $table): void {
            $this->key($table);
            $this->version($table);
            $this->ref($table, 'school_id', 'schools');
            $table->string('name', 20);
            $table->date('begins_on');
            $table->date('ends_on');
            $table->enum('state', ['planned', 'current', 'closed']);
            $table->unique(['school_id', 'name']);
        });
        Schema::create('people', function (Blueprint $table): void {
            $this->key($table);
            $this->version($table);
            $this->ref($table, 'school_id', 'schools');
            $table->enum('kind', ['student', 'guardian', 'staff']);
            $table->string('given_name', 120);
            $table->string('family_name', 120);
            $table->string('search_name', 240)->charset('ascii')->collation('ascii_bin');
            $table->date('birth_date')->nullable();
            $table->string('number', 40)->nullable();
            $table->string('grade', 2)->nullable();
            $table->string('email', 254)->nullable()->index();
            $table->string('phone', 32)->nullable()->index();
            $table->enum('state', ['active', 'left', 'merged']);
            $this->ref($table, 'merged_into', 'people', true);
            $table->index(['school_id', 'kind', 'state', 'family_name', 'given_name', 'id'], 'people_roll');
            $table->index(['school_id', 'kind', 'grade'], 'people_grade');
        });
        // A number belongs to one person of a school; an account merged into another keeps it on record only.
        DB::statement(
            "ALTER TABLE people ADD live_number VARCHAR(40) GENERATED ALWAYS AS (IF(state = 'merged', NULL, " .
                'number)) STORED INVISIBLE, ADD UNIQUE people_number (school_id, kind, live_number)',
        );
        Schema::create('coordinators', function (Blueprint $table): void {
            $this->ref($table, 'person_id', 'people');
            $this->ref($table, 'school_id', 'schools');
            $table->primary(['person_id', 'school_id']);
        });
        Schema::create('sign_ins', function (Blueprint $table): void {
            $this->key($table);
            $this->version($table);
            $this->ref($table, 'person_id', 'people');
            $table->string('user_name', 254)->collation('utf8mb4_bin')->unique();
            $table->text('passphrase')->nullable();
            $table->string('password', 255)->nullable();
            $table->dateTime('last_signed_in_at')->nullable();
        });
        Schema::create('badges', function (Blueprint $table): void {
            $this->key($table);
            $this->version($table);
            $this->ref($table, 'sign_in_id', 'sign_ins');
            $this->hash($table)->unique();
            $table->enum('state', ['live', 'lost']);
            $table->dateTime('made_at');
            $table->dateTime('ended_at')->nullable();
        });
        Schema::create('sections', function (Blueprint $table): void {
            $this->key($table);
            $this->version($table);
            $this->ref($table, 'school_id', 'schools');
            $this->ref($table, 'school_year_id', 'school_years');
            $table->string('name', 80);
            $table->enum('kind', ['homeroom', 'class']);
            $table->string('grade', 2)->nullable();
            $table->enum('state', ['open', 'archived']);
            $table->date('archived_on')->nullable();
            $this->ref($table, 'carried_from', 'sections', true);
            $table->unique(['school_year_id', 'name']);
            $table->index(['school_id', 'state', 'name']);
        });
        Schema::create('enrollments', function (Blueprint $table): void {
            $this->key($table);
            $this->version($table);
            $this->ref($table, 'section_id', 'sections');
            $this->ref($table, 'person_id', 'people');
            $table->enum('role', ['student', 'lead', 'co_teacher', 'assistant']);
            $table->date('begins_on');
            $table->date('ends_on')->nullable();
            $table->enum('source', ['list', 'code', 'hand', 'invitation', 'rollover']);
            $table->index(['person_id', 'ends_on']);
        });
        DB::statement(
            'ALTER TABLE enrollments ADD open_now TINYINT GENERATED ALWAYS AS (IF(ends_on IS NULL, 1, NULL)) ' .
                'STORED INVISIBLE, ADD UNIQUE enrollments_open (section_id, person_id, open_now)',
        );
        Schema::create('join_codes', function (Blueprint $table): void {
            $this->key($table);
            $this->version($table);
            $this->ref($table, 'section_id', 'sections');
            $table->string('code', 9)->charset('ascii')->collation('ascii_bin')->unique();
            $table->enum('state', ['open', 'closed'])->index();
            $table->dateTime('opened_at');
            $table->dateTime('closed_at')->nullable();
        });
        DB::statement(
            "ALTER TABLE join_codes ADD open_now TINYINT GENERATED ALWAYS AS (IF(state = 'open', 1, NULL)) " .
                'STORED INVISIBLE, ADD UNIQUE join_codes_open (section_id, open_now)',
        );
        Schema::create('invitations', function (Blueprint $table): void {
            $this->key($table);
            $this->version($table);
            $this->ref($table, 'section_id', 'sections');
            $this->ref($table, 'person_id', 'people', true);
            $table->string('email', 254)->index();
            $table->enum('role', ['co_teacher', 'assistant']);
            $table->enum('state', ['invited', 'accepted', 'declined', 'withdrawn']);
            $this->hash($table)->unique();
            $table->dateTime('sent_at');
            $table->dateTime('expires_at');
            $table->dateTime('answered_at')->nullable();
            $this->ref($table, 'invited_by', 'people');
        });
        Schema::create('guardianships', function (Blueprint $table): void {
            $this->key($table);
            $this->version($table);
            $this->ref($table, 'student_id', 'people');
            $this->ref($table, 'guardian_id', 'people');
            $table->string('relationship', 40)->nullable();
            $table->enum('state', ['listed', 'invited', 'connected', 'refused', 'ended']);
            $table->string('restriction', 200)->nullable();
            $table->unique(['student_id', 'guardian_id']);
        });
        Schema::create('known_apart', function (Blueprint $table): void {
            $this->key($table);
            $this->version($table);
            $this->ref($table, 'left_id', 'people');
            $this->ref($table, 'right_id', 'people');
            $table->unique(['left_id', 'right_id']);
        });
        Schema::create('ledger_entries', function (Blueprint $table): void {
            $table->unsignedBigInteger('seq', true);
            $table->char('id', 26)->charset('ascii')->collation('ascii_bin')->unique();
            $this->ref($table, 'school_id', 'schools');
            $this->ref($table, 'actor_id', 'people', true);
            $table->string('action', 40);
            $table->string('title', 200);
            $table->text('sentence');
            $table->json('tallies');
            $table->unsignedInteger('changes_count');
            // One piece of work writes one entry, however often its job is run.
            $table->string('work_key', 80)->nullable()->unique();
            $table->dateTime('made_at', 6);
            $table->dateTime('undone_at', 6)->nullable();
            $this->ref($table, 'undone_by', 'people', true);
            $table->json('kept')->nullable();
            $table->index(['school_id', 'seq']);
        });
        Schema::create('ledger_changes', function (Blueprint $table): void {
            $table->id();
            $table->unsignedBigInteger('entry_seq');
            $table->string('entity', 30)->charset('ascii')->collation('ascii_bin');
            $table->char('row_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('was_version')->nullable();
            $table->json('before');
            $table->json('after');
            $table->string('reason', 200);
            $table->foreign('entry_seq')->references('seq')->on('ledger_entries');
            $table->index(['entry_seq', 'entity']);
            $table->index(['row_id', 'entry_seq']);
        });
        Schema::create('imports', function (Blueprint $table): void {
            $this->key($table);
            $this->ref($table, 'school_id', 'schools');
            $this->ref($table, 'actor_id', 'people', true);
            $table->string('title', 160);
            $table->string('file', 120);
            $table->enum('state', ['reading', 'planned', 'unreadable', 'applying', 'applied', 'discarded']);
            $table->text('message')->nullable();
            $table->json('named')->nullable();
            $table->boolean('family_first')->nullable();
            $table->json('answers');
            $table->json('layout')->nullable();
            $table->json('summary')->nullable();
            $table->char('fingerprint', 64)->nullable();
            $table->unsignedInteger('round')->default(1);
            $table->unsignedInteger('done')->default(0);
            $table->unsignedInteger('total')->default(0);
            $table->unsignedBigInteger('entry_seq')->nullable();
            $table->dateTime('made_at');
            $table->dateTime('changed_at');
            $table->index(['school_id', 'state', 'made_at']);
        });
        Schema::create('import_rows', function (Blueprint $table): void {
            $table->id();
            $this->ref($table, 'import_id', 'imports');
            $table->unsignedInteger('number');
            $table->enum('verdict', ['new', 'update', 'same', 'ask', 'cannot']);
            $table->json('content');
            $table->index(['import_id', 'verdict', 'id']);
        });
        Schema::create('outgoing_messages', function (Blueprint $table): void {
            $this->key($table);
            $this->ref($table, 'school_id', 'schools', true);
            $table->string('to_address', 254)->index();
            $table->string('subject', 250);
            $table->text('text');
            $table->mediumText('html')->nullable();
            $table->dateTime('made_at');
            $table->index(['school_id', 'id']);
        });
    }

    public function down(): void
    {
        foreach (
            [
                'outgoing_messages',
                'import_rows',
                'imports',
                'ledger_changes',
                'ledger_entries',
                'known_apart',
                'guardianships',
                'invitations',
                'join_codes',
                'enrollments',
                'sections',
                'badges',
                'sign_ins',
                'coordinators',
                'people',
                'school_years',
                'schools',
            ]
            as $table
        ) {
            Schema::dropIfExists($table);
        }
    }

    private function key(Blueprint $table): void
    {
        $table->char('id', 26)->charset('ascii')->collation('ascii_bin')->primary();
    }

    private function version(Blueprint $table): void
    {
        $table->unsignedBigInteger('version')->default(0);
    }

    private function hash(Blueprint $table): Illuminate\Database\Schema\ColumnDefinition
    {
        return $table->char('token_hash', 64)->charset('ascii')->collation('ascii_bin');
    }

    private function ref(Blueprint $table, string $column, string $to, bool $nullable = false): void
    {
        $table->char($column, 26)->charset('ascii')->collation('ascii_bin')->nullable($nullable);
        $table->foreign($column)->references('id')->on($to);
    }
};
