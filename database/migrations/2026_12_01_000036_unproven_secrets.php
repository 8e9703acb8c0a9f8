<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Passwords that somebody chose at a door without showing who they are: they open the account that was made there, and
 * no account that it is merged with.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('sign_ins', function (Blueprint $table): void {
            $table->boolean('unproven')->default(false)->after('temporary');
        });
        // A mail to an address of the school was answered where nobody of the school did.
        DB::statement(
            'UPDATE sign_ins s JOIN join_requests r ON r.sign_in_id = s.id SET s.unproven = 1 ' .
                "WHERE r.state = 'approved' AND r.answered_by IS NOT NULL AND s.password IS NOT NULL",
        );
    }

    public function down(): void
    {
        Schema::table('sign_ins', fn(Blueprint $table) => $table->dropColumn('unproven'));
    }
};
