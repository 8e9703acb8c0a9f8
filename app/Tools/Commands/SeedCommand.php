<?php

declare(strict_types=1);

namespace App\Tools\Commands;

use App\Desk\Coverage;
use App\LookAlikes\Finding;
use App\Models\School;
use App\Platform\PlannerKit;
use App\Roll\SearchIndex;
use App\Tools\DemoCoverage;
use App\Tools\DemoIntake;
use Database\Seeders\DemoDistrict;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Vantrel\Core\Names\NameKey;

final class SeedCommand extends Command
{
    protected $signature = 'vantrel:seed {which=demo : demo, or empty for one school and one coordinator}';

    /** User name of the first coordinator of an empty instance. */
    public const FIRST = 'coordinator';

    protected $description = 'Fill an empty database; does nothing where there is data';

    public function handle(PlannerKit $kit, Finding $finding, SearchIndex $words, Coverage $coverage): int
    {
        if (DB::table('schools')->exists()) {
            return self::SUCCESS;
        }
        if ($this->argument('which') === 'empty') {
            $this->empty($kit);

            return self::SUCCESS;
        }
        (new DemoDistrict($kit))->run();
        DemoIntake::leaveHalfDone();
        foreach (School::query()->get() as $school) {
            $finding->all($school->id);
        }
        $finding->run();
        $words->all();
        foreach (School::query()->get() as $school) {
            DemoCoverage::of($school, $coverage);
        }

        return self::SUCCESS;
    }

    /** One school and one coordinator, whose password is printed this once and changed at the first sign-in. */
    private function empty(PlannerKit $kit): void
    {
        $ids = $kit->ids($kit->seed());
        $password = $kit->passphrases($kit->seed())->draw() . ' ' . $kit->passphrases($kit->seed() . ' more')->draw();
        $school = $ids->for('school', 'first');
        $person = $ids->for('staff', 'first');
        $year = (int) date('Y') - (date('n') < 7 ? 1 : 0);
        DB::transaction(function () use ($ids, $school, $person, $year, $password): void {
            DB::table('schools')->insert([
                'id' => $school,
                'code' => 'school',
                'name' => 'First school',
                'lowest_grade' => 0,
                'highest_grade' => 12,
                'mail_domains' => '[]',
                'time_zone' => 'UTC',
                'country' => 'US',
            ]);
            DB::table('school_years')->insert([
                'id' => $ids->for('year', 'first'),
                'school_id' => $school,
                'name' => $year . '-' . substr((string) ($year + 1), 2),
                'begins_on' => "$year-08-20",
                'ends_on' => $year + 1 . '-06-20',
                'state' => 'current',
            ]);
            DB::table('people')->insert([
                'id' => $person,
                'school_id' => $school,
                'kind' => 'staff',
                'given_name' => 'First',
                'family_name' => 'Coordinator',
                'search_name' => NameKey::of('First Coordinator'),
                'email' => null,
                'state' => 'active',
            ]);
            DB::table('sign_ins')->insert([
                'id' => $ids->for('sign-in', 'first'),
                'person_id' => $person,
                'user_name' => self::FIRST,
                'password' => Hash::make($password),
                'temporary' => 1,
            ]);
            DB::table('coordinators')->insert([
                'id' => $ids->for('coordinator', 'first'),
                'person_id' => $person,
                'school_id' => $school,
            ]);
        });
        $this->line('The first sign-in, shown this once: user name ' . self::FIRST . ", password $password");
        $this->line('It is changed at the first sign-in.');
    }
}
