<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Look-alikes are kept, found in the background for those an entry touched. Both tables follow from the Roll and can be
 * made anew from it at any time. Two told apart are asked about again when what is known of them changes.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('look_alikes', function (Blueprint $table): void {
            foreach (['left_id', 'right_id', 'school_id'] as $id) {
                $table->char($id, 26)->charset('ascii')->collation('ascii_bin');
            }
            $table->double('probability');
            $table->string('caution', 80);
            $table->char('facts', 64)->charset('ascii')->collation('ascii_bin');
            // Of the cluster the two belong to; 0 where the cluster keeps its other links and not this one.
            $table->unsignedSmallInteger('accounts')->default(2);
            $table->primary(['left_id', 'right_id']);
            $table->index('right_id');
            $table->index(['school_id', 'probability']);
        });
        Schema::create('look_alike_todo', function (Blueprint $table): void {
            $table->char('person_id', 26)->charset('ascii')->collation('ascii_bin')->primary();
            $table->dateTime('since', 6);
        });
        Schema::table('known_apart', function (Blueprint $table): void {
            $table->char('facts', 64)->charset('ascii')->collation('ascii_bin')->default('');
        });
        DB::statement("INSERT INTO look_alike_todo SELECT id, NOW(6) FROM people WHERE kind = 'student'");
    }

    public function down(): void
    {
        Schema::table('known_apart', function (Blueprint $table): void {
            $table->dropColumn('facts');
        });
        Schema::dropIfExists('look_alike_todo');
        Schema::dropIfExists('look_alikes');
    }
};
