<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** People of whom something kept has to be worked out anew: marked by whoever writes, settled before it is read. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            "CREATE TABLE roll_stale (
                what ENUM('problems', 'words') NOT NULL,
                person_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
                PRIMARY KEY (what, person_id)
            )",
        );
    }

    public function down(): void
    {
        Schema::dropIfExists('roll_stale');
    }
};
