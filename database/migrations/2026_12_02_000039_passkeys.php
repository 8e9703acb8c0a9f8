<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Passkeys of staff. The second factor may be one of them, so the app that shows codes may be missing. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('passkeys', function (Blueprint $table): void {
            $table->char('id', 26)->charset('ascii')->collation('ascii_bin')->primary();
            $table->char('person_id', 26)->charset('ascii')->collation('ascii_bin');
            $table->foreign('person_id')->references('id')->on('people');
            // The credential id has up to 1,023 bytes (W3C Web Authentication); what is looked up is its SHA-256.
            $table->binary('credential_id', 1023);
            $table->char('credential_hash', 64)->charset('ascii')->collation('ascii_bin')->unique();
            $table->text('public_key');
            $table->unsignedInteger('sign_count');
            $table->string('name', 60);
            $table->dateTime('made_at');
        });
        Schema::table('second_factors', fn(Blueprint $table) => $table->text('pending')->nullable());
        DB::statement('ALTER TABLE second_factors MODIFY secret TEXT NULL');
        DB::statement('UPDATE second_factors SET pending = secret, secret = NULL WHERE confirmed_at IS NULL');
        $this->ways("'password', 'passphrase', 'badge', 'sign_on', 'room_pass', 'passkey'");
    }

    public function down(): void
    {
        DB::table('credential_uses')->where('way', 'passkey')->delete();
        $this->ways("'password', 'passphrase', 'badge', 'sign_on', 'room_pass'");
        DB::table('second_factors')->whereNull('secret')->delete();
        DB::statement('ALTER TABLE second_factors MODIFY secret TEXT NOT NULL');
        Schema::table('second_factors', fn(Blueprint $table) => $table->dropColumn('pending'));
        Schema::dropIfExists('passkeys');
    }

    private function ways(string $ways): void
    {
        DB::statement("ALTER TABLE credential_uses MODIFY way ENUM($ways) NOT NULL");
    }
};
