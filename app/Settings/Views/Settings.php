<?php

declare(strict_types=1);

namespace App\Settings\Views;

use App\Platform\GradeChoice;
use App\Platform\Resource;
use Vantrel\Core\Names\NameShown;

/** What a school has decided for itself. */
final readonly class Settings extends Resource
{
    /**
     * @param  int  $version goes up with every change; sent back, it says what was looked at
     * @param  list<string>  $mailDomains
     * @param  list<GradeWay>  $ways how the students of each grade sign in
     * @param  list<YearLine>  $years newest first
     * @param  int  $liveCodes join codes that open a section now, in the whole district
     * @param  float  $guessPerDay chance that one address, guessing all day, opens any section
     * @param  int  $codeLength symbols of a new code without its check symbol
     * @param  int  $keepLogsDays of the whole server, set where it runs
     * @param  list<string>  $timeZones
     * @param  list<GradeChoice>  $allGrades that a school can teach, lowest first, as set in a table
     */
    public function __construct(
        public int $version,
        public string $name,
        public string $lowestGrade,
        public string $highestGrade,
        public array $mailDomains,
        public string $timeZone,
        public string $country,
        public string $namingPattern,
        public array $ways,
        public int $stayDaysShared,
        public int $stayDaysOwn,
        public bool $outsideStaff,
        public string $newcomerCheck,
        public bool $newcomerMail,
        public string $under13,
        public string $secondFactor,
        public NameShown $nameShown,
        public string $userNamesFrom,
        public string $dayOpens,
        public string $dayCloses,
        public string $guardiansIn,
        public bool $remindGuardians,
        public int $quietFrom,
        public int $quietTo,
        public array $years,
        public int $liveCodes,
        public int $triesPerDay,
        public float $guessPerDay,
        public int $codeLength,
        public int $keepAskingsDays,
        public int $keepListsDays,
        public int $keepMessagesDays,
        public int $keepLedgerDays,
        public int $keepLogsDays,
        public array $timeZones,
        public array $allGrades,
    ) {}
}
