<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What a school has put off on its Desk, until when and why; and how far each coordinator has read what was done. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('desk_put_off', function (Blueprint $table): void {
            $table->char('school_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->string('loop', 30)->charset('ascii')->collation('ascii_bin');
            $table->date('until');
            $table->string('reason', 200);
            $table->char('by_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->primary(['school_id', 'loop']);
        });
        Schema::create('desk_read', function (Blueprint $table): void {
            $table->char('person_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->char('school_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('entry_seq');
            $table->dateTime('at');
            $table->primary(['person_id', 'school_id']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('desk_read');
        Schema::dropIfExists('desk_put_off');
    }
};
