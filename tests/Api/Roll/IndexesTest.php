<?php

declare(strict_types=1);

use App\Roll\KeptProblems;
use App\Roll\SearchIndex;
use App\Tools\BigSchool;
use Illuminate\Support\Facades\DB;
use Tests\Support\ServerTestCase;
use Vantrel\Core\Roll\AccountProblem;

// Nothing that a coordinator looks at goes through a whole table of people, or of what belongs to them: every statement
// of every list, filter, order, search and count is explained by the database, in a school that is large enough for it
// to matter.

// Counting how values are spread ends a transaction: the test works in a database of its own.
beforeEach(function (): void {
    $this->own = (string) config('database.connections.mariadb.database');
    ServerTestCase::useDatabase($this->own . '_indexes');
});

afterEach(fn() => ServerTestCase::useDatabase($this->own));

it('goes by an index whatever is listed, filtered, sorted, searched or counted', function (): void {
    readyToUndo($this);
    (new BigSchool($this->world->schoolModel(), $this->world->year, 7))->fill(6000, 60, 3000);
    app(KeptProblems::class)->all($this->world->school);
    app(SearchIndex::class)->all();
    DB::statement(
        'ANALYZE TABLE people, enrollments, sign_ins, badges, guardianships, roll_problems, search_words, ' .
            'search_keys, ledger_entries, ledger_changes, ledger_schools, sections',
    );
    $school = "/api/schools/{$this->world->school}";
    $asked = [
        "$school/coverage",
        "$school/coverage?part=05",
        "$school/views",
        "$school/desk",
        "$school/look-alikes",
        "$school/find?q=noor+castel",
    ];
    foreach (['name', 'grade', 'number', 'email'] as $sort) {
        foreach (['student', 'guardian', 'staff'] as $kind) {
            foreach (['false', 'true'] as $down) {
                $asked[] = "$school/people?kind=$kind&sort=$sort&down=$down";
                $asked[] = "$school/people?kind=$kind&sort=$sort&down=$down&left=true";
            }
        }
        foreach (AccountProblem::cases() as $problem) {
            $asked[] = "$school/people?kind=student&sort=$sort&problem=$problem->value";
            $asked[] = "$school/people?kind=student&sort=$sort&problem=$problem->value&grade=05";
        }
        $asked[] = "$school/people?kind=student&sort=$sort&problem=no_card,never_signed_in";
        $asked[] = "$school/people?kind=student&sort=$sort&grade=05";
        $asked[] = "$school/people?kind=student&sort=$sort&q=ada";
    }
    $about = DB::table('enrollments')->orderBy('id')->value('person_id');
    $section = DB::table('enrollments')->orderBy('id')->value('section_id');
    $coordinator = $this->world->people['coordinator'];
    foreach (['', "about=$about", "about=$section", 'area=intake', "actor=$coordinator", 'actor=vantrel'] as $ledger) {
        $asked[] = "$school/ledger?$ledger";
        $asked[] = "$school/ledger?$ledger&from=2026-10-01&to=2026-10-02";
    }
    $asked[] = "$school/ledger?area=roll&actor=$coordinator&about=$about&from=2026-10-01";
    $asked[] = '/api/people/' . DB::table('people')->where('family_name', 'Haddad')->value('id');
    $statements = [];
    DB::listen(function (object $query) use (&$statements): void {
        if (str_starts_with($query->sql, 'select')) {
            $statements[$query->sql] ??= $query->bindings;
        }
    });
    foreach ($asked as $uri) {
        $this->getJson($uri)->assertOk();
    }
    $read = $statements;
    $whole = [];
    $large = '/^(people|enrollments|sign_ins|badges|guardianships|roll_problems|search_words|search_keys|ledger_)/';
    foreach ($read as $sql => $bindings) {
        foreach (DB::select("explain $sql", $bindings) as $step) {
            // By the name of the table, not by that it has in the statement.
            $table = preg_match("/`(\w+)` as `$step->table`/", $sql, $m) === 1 ? $m[1] : (string) $step->table;
            if (preg_match($large, $table) === 1 && $step->type === 'ALL') {
                $whole[] = "$table: $sql";
            }
        }
    }
    expect($whole)->toBe([])->and(count($read))->toBeGreaterThan(40);
});
