<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Views of the Roll kept under a name: of the school, or of one coordinator. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('roll_views', function (Blueprint $table): void {
            foreach (['id', 'school_id'] as $id) {
                $table->char($id, 26)->charset('ascii')->collation('ascii_bin');
            }
            // Whose it is; none where it is the school's.
            $table->char('person_id', 26)->charset('ascii')->collation('ascii_bin')->nullable();
            $table->string('name', 40);
            $table->string('query', 500);
            $table->dateTime('made_at');
            $table->primary('id');
            $table->index(['school_id', 'person_id']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('roll_views');
    }
};
