<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Intakes of several files, lists of everyone, what is remembered of a file's shape, and weights of a school's own. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('schools', function (Blueprint $table): void {
            $table->unsignedBigInteger('version')->default(0)->after('id');
        });
        Schema::table('imports', function (Blueprint $table): void {
            $table->json('files')->nullable()->after('title');
            $table->char('content_hash', 64)->charset('ascii')->collation('ascii_bin')->nullable()->after('files');
            // Whose whole list it is: school, grade:04 or section:ID; null where it is read as additions.
            $table->string('everyone', 60)->nullable()->after('state');
            $table->string('confirmed', 60)->default('')->after('everyone');
            $table->index(['school_id', 'content_hash']);
        });
        DB::statement("UPDATE imports SET files = JSON_ARRAY(JSON_OBJECT('file', file, 'title', title))");
        // What was said of columns and names goes where all answers are.
        foreach (DB::table('imports')->get(['id', 'named', 'family_first', 'answers']) as $intake) {
            $answers = (array) json_decode((string) $intake->answers, true);
            foreach ((array) json_decode((string) $intake->named, true) as $column => $field) {
                $answers["t0.c$column"] = $field ?? '-';
            }
            if ($intake->family_first !== null) {
                $answers['t0.names'] = $intake->family_first ? 'family' : 'given';
            }
            DB::table('imports')
                ->where('id', $intake->id)
                ->update(['answers' => json_encode((object) $answers, JSON_THROW_ON_ERROR)]);
        }
        Schema::table('imports', function (Blueprint $table): void {
            $table->dropColumn(['file', 'named', 'family_first']);
        });
        Schema::table('import_rows', function (Blueprint $table): void {
            $table->string('sheet', 160)->default('')->after('import_id');
        });
        DB::statement(
            "ALTER TABLE import_rows MODIFY verdict ENUM('new', 'update', 'same', 'ask', 'cannot', 'leaving') NOT NULL",
        );
        Schema::create('column_mappings', function (Blueprint $table): void {
            $table->id();
            $table->char('school_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->foreign('school_id')->references('id')->on('schools');
            $table->char('shape', 64)->charset('ascii')->collation('ascii_bin');
            $table->json('said');
            $table->dateTime('used_at');
            $table->unique(['school_id', 'shape']);
        });
        Schema::create('match_weights', function (Blueprint $table): void {
            $table->char('school_id', 26)->charset('ascii')->collation('ascii_bin')->primary();
            $table->foreign('school_id')->references('id')->on('schools');
            $table->json('m');
            $table->unsignedInteger('pairs');
            $table->char('made_by', 26)->charset('ascii')->collation('ascii_bin')->nullable();
            $table->foreign('made_by')->references('id')->on('people');
            $table->dateTime('made_at');
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('match_weights');
        Schema::dropIfExists('column_mappings');
        DB::statement("DELETE FROM import_rows WHERE verdict = 'leaving'");
        DB::statement("ALTER TABLE import_rows MODIFY verdict ENUM('new', 'update', 'same', 'ask', 'cannot') NOT NULL");
        Schema::table('import_rows', function (Blueprint $table): void {
            $table->dropColumn('sheet');
        });
        Schema::table('imports', function (Blueprint $table): void {
            $table->string('file', 120)->default('');
            $table->json('named')->nullable();
            $table->boolean('family_first')->nullable();
        });
        DB::statement("UPDATE imports SET file = JSON_VALUE(files, '$[0].file')");
        Schema::table('imports', function (Blueprint $table): void {
            $table->dropIndex(['school_id', 'content_hash']);
            $table->dropColumn(['files', 'content_hash', 'everyone', 'confirmed']);
        });
        Schema::table('schools', function (Blueprint $table): void {
            $table->dropColumn('version');
        });
    }
};
