<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;

final readonly class PersonDetail extends Resource
{
    /**
     * @param  list<Enrolled>  $enrollments newest first
     * @param  list<Relative>  $relatives guardians of a student, children of a guardian
     * @param  list<UserName>  $userNames
     * @param  list<Happening>  $history newest first
     * @param  list<SentTo>  $messages to their address, newest first
     * @param  string  $bounced why mail to their address came back; '' where none has
     */
    public function __construct(
        public string $id,
        public int $version,
        public string $name,
        public string $given,
        public string $family,
        public string $preferred,
        public PersonKind $kind,
        public PersonState $state,
        public string $grade,
        public string $gradeCode,
        public string $number,
        public string $birthDate,
        public string $email,
        public string $phone,
        public string $language,
        public string $languageName,
        public ?NameShown $nameShown,
        public string $school,
        public string $schoolId,
        public bool $erased,
        public array $enrollments,
        public array $relatives,
        public array $userNames,
        public array $history,
        public array $messages,
        public string $bounced,
    ) {}
}
