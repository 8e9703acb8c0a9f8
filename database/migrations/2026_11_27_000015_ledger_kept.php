<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** How long a school keeps the details of its ledger; and who has been erased from it. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('schools', function (Blueprint $table): void {
            $table->unsignedSmallInteger('keep_ledger_days')->default(1825);
        });
        Schema::table('ledger_entries', function (Blueprint $table): void {
            $table->dateTime('cleared_at')->nullable();
        });
        Schema::table('people', function (Blueprint $table): void {
            $table->date('erased_on')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('people', function (Blueprint $table): void {
            $table->dropColumn('erased_on');
        });
        Schema::table('ledger_entries', function (Blueprint $table): void {
            $table->dropColumn('cleared_at');
        });
        Schema::table('schools', function (Blueprint $table): void {
            $table->dropColumn('keep_ledger_days');
        });
    }
};
