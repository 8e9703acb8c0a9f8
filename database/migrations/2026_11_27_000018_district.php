<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Look-alikes across schools: of no school, for those who coordinate both. */
return new class extends Migration {
    private const SCHOOL = 'ALTER TABLE look_alikes MODIFY school_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin';

    public function up(): void
    {
        DB::statement(self::SCHOOL . ' NULL');
        DB::statement('INSERT IGNORE INTO look_alike_todo SELECT id, NOW(6) FROM people');
    }

    public function down(): void
    {
        DB::statement('DELETE FROM look_alikes WHERE school_id IS NULL');
        DB::statement(self::SCHOOL . ' NOT NULL');
    }
};
