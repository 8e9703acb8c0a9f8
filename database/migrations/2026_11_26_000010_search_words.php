<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** The words people are found by, and the keys a word is found by that was typed with a slip. Both follow the Roll. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('search_words', function (Blueprint $table): void {
            $table->string('word', 60)->charset('ascii')->collation('ascii_bin');
            $table->char('person_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->unsignedTinyInteger('former')->default(0);
            $table->primary(['word', 'person_id']);
            $table->index(['person_id', 'word', 'former']);
        });
        Schema::create('search_keys', function (Blueprint $table): void {
            $table->string('key', 64)->charset('ascii')->collation('ascii_bin');
            $table->string('word', 60)->charset('ascii')->collation('ascii_bin');
            $table->primary(['key', 'word']);
            $table->index('word');
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('search_keys');
        Schema::dropIfExists('search_words');
    }
};
