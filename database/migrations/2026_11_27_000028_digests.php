<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Up to when each guardian has been told what is new. */
return new class extends Migration {
    public function up(): void
    {
        $id = 'CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';
        DB::statement(
            "CREATE TABLE digests_told (
                person_id $id NOT NULL PRIMARY KEY,
                until DATETIME NOT NULL,
                FOREIGN KEY (person_id) REFERENCES people (id)
            )",
        );
    }

    public function down(): void
    {
        Schema::dropIfExists('digests_told');
    }
};
