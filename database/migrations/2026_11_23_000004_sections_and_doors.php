<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * A school's own rules; terms of join codes, requests, room passes; substitutes; second factors, other sign-ins,
 * resets.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('schools', function (Blueprint $table): void {
            $table->string('naming_pattern', 60)->default('{subject} {grade}{group}');
            // Bands of grades with the way their students sign in, as SignInPolicy writes them; '' is the default.
            $table->string('sign_in_policy', 500)->default('');
            $table->unsignedSmallInteger('stay_days_shared')->default(0);
            $table->unsignedSmallInteger('stay_days_own')->default(0);
            $table->boolean('outside_staff')->default(false);
            $table->enum('newcomer_check', ['none', 'birth_date', 'number'])->default('birth_date');
            $table->boolean('newcomer_mail')->default(false);
            $table->enum('under_13', ['allow', 'approve', 'listed'])->default('approve');
            $table->enum('second_factor', ['optional', 'coordinators', 'staff'])->default('optional');
            $table->char('day_opens', 5)->default('07:00');
            $table->char('day_closes', 5)->default('17:00');
        });
        DB::statement(
            "ALTER TABLE people MODIFY state ENUM('active', 'left', 'merged', 'reserve') NOT NULL, ADD " .
                'pictures CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL',
        );
        Schema::table('sections', function (Blueprint $table): void {
            $table->string('period', 20)->nullable()->after('grade');
            $table->unsignedSmallInteger('seats')->nullable()->after('period');
            $table->index(['school_year_id', 'period']);
        });
        Schema::table('join_codes', function (Blueprint $table): void {
            $table
                ->enum('who', ['accounts', 'domain', 'approval'])
                ->default('approval')
                ->after('state');
            $table->dateTime('starts_at')->nullable()->after('who');
            $table->dateTime('ends_at')->nullable()->after('starts_at');
            $table->unsignedSmallInteger('cap')->nullable()->after('ends_at');
        });
        DB::statement(
            "ALTER TABLE enrollments MODIFY role ENUM('student', 'lead', 'co_teacher', 'assistant', " .
                "'substitute') NOT NULL, MODIFY source ENUM('list', 'code', 'hand', 'invitation', 'rollover', " .
                "'request', 'move', 'reserve') NOT NULL",
        );
        Schema::table('enrollments', function (Blueprint $table): void {
            $this->ref($table, 'join_code_id', 'join_codes', true);
            $table->dateTime('came_at')->nullable();
        });
        DB::statement("ALTER TABLE invitations MODIFY role ENUM('co_teacher', 'assistant', 'substitute') NOT NULL");
        Schema::table('invitations', function (Blueprint $table): void {
            $table->date('begins_on')->nullable()->after('role');
            $table->date('ends_on')->nullable()->after('begins_on');
        });
        Schema::table('sessions', function (Blueprint $table): void {
            // Whether its owner stays signed in; the others are cleared away when they have been idle for long enough.
            $table->boolean('stays')->default(false);
        });
        Schema::create('join_requests', function (Blueprint $table): void {
            $this->key($table);
            $table->unsignedBigInteger('version')->default(0);
            $this->ref($table, 'section_id', 'sections');
            $this->ref($table, 'join_code_id', 'join_codes', true);
            $this->ref($table, 'person_id', 'people', true);
            $table->enum('state', ['mail', 'waiting', 'approved', 'refused']);
            $table->enum('cause', ['newcomer', 'domain', 'under_13']);
            $table->string('given_name', 120);
            $table->string('family_name', 120);
            $table->date('birth_date')->nullable();
            $table->string('number', 40)->nullable();
            $table->string('email', 254)->nullable();
            $table->string('password', 255)->nullable();
            $table->char('token_hash', 64)->charset('ascii')->collation('ascii_bin')->nullable()->unique();
            $table->dateTime('made_at');
            $table->dateTime('answered_at')->nullable();
            $this->ref($table, 'answered_by', 'people', true);
            $table->index(['section_id', 'state']);
        });
        Schema::create('room_passes', function (Blueprint $table): void {
            $this->key($table);
            $table->unsignedBigInteger('version')->default(0);
            $this->ref($table, 'section_id', 'sections');
            $table->char('token_hash', 64)->charset('ascii')->collation('ascii_bin')->unique();
            $table->enum('state', ['live', 'ended']);
            $table->enum('hours', ['school', 'any']);
            $table->boolean('pictures')->default(false);
            $table->dateTime('made_at');
            $table->dateTime('ends_at')->nullable();
            $table->dateTime('ended_at')->nullable();
            $table->index(['section_id', 'state']);
        });
        Schema::create('second_factors', function (Blueprint $table): void {
            $table->char('person_id', 26)->charset('ascii')->collation('ascii_bin')->primary();
            $table->foreign('person_id')->references('id')->on('people');
            $table->text('secret');
            $table->dateTime('confirmed_at')->nullable();
            // The time step of the last code that was taken: none is taken twice (RFC 6238, 5.2).
            $table->unsignedBigInteger('last_step')->default(0);
            $table->json('recovery');
        });
        Schema::create('identities', function (Blueprint $table): void {
            $this->key($table);
            $this->ref($table, 'person_id', 'people');
            $table->string('issuer', 200)->charset('ascii')->collation('ascii_bin');
            $table->string('subject', 255)->charset('ascii')->collation('ascii_bin');
            $table->dateTime('made_at');
            $table->unique(['issuer', 'subject']);
        });
        Schema::create('password_resets', function (Blueprint $table): void {
            $this->key($table);
            $this->ref($table, 'sign_in_id', 'sign_ins');
            $table->char('token_hash', 64)->charset('ascii')->collation('ascii_bin')->unique();
            $table->dateTime('expires_at');
            $table->dateTime('used_at')->nullable();
        });
    }

    public function down(): void
    {
        foreach (['password_resets', 'identities', 'second_factors', 'room_passes', 'join_requests'] as $table) {
            Schema::dropIfExists($table);
        }
        Schema::table('sessions', function (Blueprint $table): void {
            $table->dropColumn('stays');
        });
        DB::statement("DELETE FROM invitations WHERE role = 'substitute'");
        DB::statement(
            "ALTER TABLE invitations MODIFY role ENUM('co_teacher', 'assistant') NOT NULL, DROP begins_on, " .
                'DROP ends_on',
        );
        DB::statement("DELETE FROM enrollments WHERE role = 'substitute'");
        DB::statement("UPDATE enrollments SET source = 'hand' WHERE source IN ('request', 'move', 'reserve')");
        Schema::table('enrollments', function (Blueprint $table): void {
            $table->dropForeign(['join_code_id']);
            $table->dropColumn(['join_code_id', 'came_at']);
        });
        DB::statement(
            "ALTER TABLE enrollments MODIFY role ENUM('student', 'lead', 'co_teacher', 'assistant') NOT " .
                "NULL, MODIFY source ENUM('list', 'code', 'hand', 'invitation', 'rollover') NOT NULL",
        );
        Schema::table('join_codes', function (Blueprint $table): void {
            $table->dropColumn(['who', 'starts_at', 'ends_at', 'cap']);
        });
        Schema::table('sections', function (Blueprint $table): void {
            $table->dropIndex(['school_year_id', 'period']);
            $table->dropColumn(['period', 'seats']);
        });
        DB::statement("UPDATE people SET state = 'left' WHERE state = 'reserve'");
        DB::statement("ALTER TABLE people MODIFY state ENUM('active', 'left', 'merged') NOT NULL, DROP pictures");
        Schema::table('schools', function (Blueprint $table): void {
            $table->dropColumn([
                'naming_pattern',
                'sign_in_policy',
                'stay_days_shared',
                'stay_days_own',
                'outside_staff',
                'newcomer_check',
                'newcomer_mail',
                'under_13',
                'second_factor',
                'day_opens',
                'day_closes',
            ]);
        });
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
