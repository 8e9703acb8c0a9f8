<?php

declare(strict_types=1);

namespace App\Settings\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Settings\SchoolSettings;

/** What a school changes of its settings; null for what stays. */
final readonly class SettingsWish
{
    /**
     * @param  list<string>|null  $mailDomains
     * @param  array<string, string>|null  $ways grade to way of signing in
     * @param  int|null  $version of the settings that were looked at: where they have changed since, nothing is kept
     */
    public function __construct(
        #[Must('sometimes|max:120')] public ?string $name = null,
        #[Must('sometimes|max:4')] public ?string $lowestGrade = null,
        #[Must('sometimes|max:4')] public ?string $highestGrade = null,
        #[Must('sometimes|max:20', each: 'string|max:120')] public ?array $mailDomains = null,
        #[Must('sometimes|max:60')] public ?string $timeZone = null,
        #[Must('sometimes|size:2|alpha:ascii')] public ?string $country = null,
        #[Must('sometimes|max:60')] public ?string $namingPattern = null,
        #[Must('sometimes|max:16', each: 'in:card,passphrase,own,school')] public ?array $ways = null,
        #[Must('sometimes')] public ?int $stayDaysShared = null,
        #[Must('sometimes')] public ?int $stayDaysOwn = null,
        #[Must('sometimes')] public ?bool $outsideStaff = null,
        #[Must('sometimes|in:none,birth_date,number')] public ?string $newcomerCheck = null,
        #[Must('sometimes')] public ?bool $newcomerMail = null,
        #[Must('sometimes|in:allow,approve,listed')] public ?string $under_13 = null,
        #[Must('sometimes|in:optional,coordinators,staff')] public ?string $secondFactor = null,
        public ?NameShown $nameShown = null,
        #[Must('sometimes|in:legal,preferred')] public ?string $userNamesFrom = null,
        #[Must('sometimes|max:5')] public ?string $dayOpens = null,
        #[Must('sometimes|max:5')] public ?string $dayCloses = null,
        #[Must('sometimes')] public ?int $keepAskingsDays = null,
        #[Must('sometimes')] public ?int $keepListsDays = null,
        #[Must('sometimes')] public ?int $keepMessagesDays = null,
        #[Must('sometimes')] public ?int $keepLedgerDays = null,
        #[Must('sometimes|in:at_once,check')] public ?string $guardiansIn = null,
        #[Must('sometimes')] public ?bool $remindGuardians = null,
        #[Must('sometimes|min:0|max:23')] public ?int $quietFrom = null,
        #[Must('sometimes|min:0|max:23')] public ?int $quietTo = null,
        #[Must('sometimes')] public ?int $version = null,
    ) {}

    /** @return array<string, string|int> column of the school to what it becomes */
    public function columns(): array
    {
        return array_filter(
            [
                'name' => $this->name,
                'lowest_grade' => SchoolSettings::grade($this->lowestGrade),
                'highest_grade' => SchoolSettings::grade($this->highestGrade),
                'mail_domains' => $this->mailDomains === null ? null : SchoolSettings::domains($this->mailDomains),
                'time_zone' => $this->timeZone,
                'country' => $this->country === null ? null : strtoupper($this->country),
                'naming_pattern' => $this->namingPattern,
                'sign_in_policy' => $this->ways === null ? null : SignInPolicy::ofGrades($this->ways)->text(),
                'stay_days_shared' => $this->stayDaysShared,
                'stay_days_own' => $this->stayDaysOwn,
                'outside_staff' => self::flag($this->outsideStaff),
                'newcomer_check' => $this->newcomerCheck,
                'newcomer_mail' => self::flag($this->newcomerMail),
                'under_13' => $this->under_13,
                'second_factor' => $this->secondFactor,
                'name_shown' => $this->nameShown?->value,
                'user_names_from' => $this->userNamesFrom,
                'day_opens' => $this->dayOpens,
                'day_closes' => $this->dayCloses,
                'guardians_in' => $this->guardiansIn,
                'remind_guardians' => self::flag($this->remindGuardians),
                'quiet_from' => $this->quietFrom,
                'quiet_to' => $this->quietTo,
                'keep_askings_days' => $this->keepAskingsDays,
                'keep_lists_days' => $this->keepListsDays,
                'keep_messages_days' => $this->keepMessagesDays,
                'keep_ledger_days' => $this->keepLedgerDays,
            ],
            fn(string|int|null $v): bool => $v !== null,
        );
    }

    private static function flag(?bool $said): ?int
    {
        return $said === null ? null : (int) $said;
    }
}
