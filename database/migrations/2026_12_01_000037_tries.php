<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Tries counted where one statement counts and tells: many at once count as many. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('tries', function (Blueprint $table): void {
            $table->char('id', 64)->charset('ascii')->collation('ascii_bin')->primary();
            // UTC seconds from which they are forgotten.
            $table->unsignedInteger('until')->index();
            $table->unsignedInteger('n');
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('tries');
    }
};
