<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/**
 * The kinds of record a plan may change. The value is the table's name.
 * Cases stand in order of dependence: a record only ever refers to records of the same or an earlier case.
 */
enum Entity: string
{
    case School = 'schools';
    case SchoolYear = 'school_years';
    case Person = 'people';
    case Coordinator = 'coordinators';
    case SignIn = 'sign_ins';
    case Badge = 'badges';
    case Identity = 'identities';
    case Section = 'sections';
    case JoinCode = 'join_codes';
    case Enrollment = 'enrollments';
    case Invitation = 'invitations';
    case JoinRequest = 'join_requests';
    case RoomPass = 'room_passes';
    case Guardianship = 'guardianships';
    case KnownApart = 'known_apart';
    case TransferRequest = 'transfer_requests';
    case LetterWording = 'letter_wordings';
    case FamilyLetter = 'family_letters';
    case GuardianClaim = 'guardian_claims';
    case GuardianInvitation = 'guardian_invitations';
    case Notice = 'notices';
    case WorkResult = 'work_results';
    case StudentInvitation = 'student_invitations';

    /**
     * What a record of this kind is read as.
     *
     * @return class-string<Record>
     */
    public function record(): string
    {
        return match ($this) {
            self::School => School::class,
            self::SchoolYear => SchoolYear::class,
            self::Person => Person::class,
            self::Coordinator => Coordinator::class,
            self::SignIn => SignIn::class,
            self::Badge => Badge::class,
            self::Identity => Identity::class,
            self::Section => Section::class,
            self::JoinCode => JoinCode::class,
            self::Enrollment => Enrollment::class,
            self::Invitation => Invitation::class,
            self::JoinRequest => JoinRequest::class,
            self::RoomPass => RoomPass::class,
            self::Guardianship => Guardianship::class,
            self::KnownApart => KnownApart::class,
            self::TransferRequest => TransferRequest::class,
            self::LetterWording => LetterWording::class,
            self::FamilyLetter => FamilyLetter::class,
            self::GuardianClaim => GuardianClaim::class,
            self::GuardianInvitation => GuardianInvitation::class,
            self::Notice => Notice::class,
            self::WorkResult => WorkResult::class,
            self::StudentInvitation => StudentInvitation::class,
        };
    }

    /**
     * Which columns point at which records.
     *
     * @return array<string, self>
     */
    public function references(): array
    {
        return match ($this) {
            self::School => [],
            self::SchoolYear, self::LetterWording => ['school_id' => self::School],
            self::FamilyLetter => ['student_id' => self::Person],
            self::GuardianClaim => [
                'letter_id' => self::FamilyLetter,
                'student_id' => self::Person,
                'person_id' => self::Person,
                'suggested_id' => self::Person,
            ],
            self::GuardianInvitation => [
                'school_id' => self::School,
                'guardian_id' => self::Person,
                'invited_by' => self::Person,
            ],
            self::Notice => [
                'school_id' => self::School,
                'section_id' => self::Section,
                'made_by' => self::Person,
            ],
            self::WorkResult => ['notice_id' => self::Notice, 'person_id' => self::Person],
            self::StudentInvitation => [
                'section_id' => self::Section,
                'person_id' => self::Person,
                'guardian_id' => self::Person,
                'join_request_id' => self::JoinRequest,
                'invited_by' => self::Person,
            ],
            self::Person => ['school_id' => self::School, 'merged_into' => self::Person],
            self::Coordinator => ['person_id' => self::Person, 'school_id' => self::School],
            self::SignIn, self::Identity => ['person_id' => self::Person],
            self::Badge => ['sign_in_id' => self::SignIn],
            self::Section => [
                'school_id' => self::School,
                'school_year_id' => self::SchoolYear,
                'carried_from' => self::Section,
            ],
            self::Enrollment => [
                'section_id' => self::Section,
                'person_id' => self::Person,
                'join_code_id' => self::JoinCode,
            ],
            self::JoinCode, self::RoomPass => ['section_id' => self::Section],
            self::JoinRequest => [
                'section_id' => self::Section,
                'join_code_id' => self::JoinCode,
                'person_id' => self::Person,
                'sign_in_id' => self::SignIn,
                'answered_by' => self::Person,
            ],
            self::Invitation => [
                'section_id' => self::Section,
                'person_id' => self::Person,
                'invited_by' => self::Person,
            ],
            self::Guardianship => [
                'student_id' => self::Person,
                'guardian_id' => self::Person,
                'state_by' => self::Person,
            ],
            self::KnownApart => ['left_id' => self::Person, 'right_id' => self::Person],
            self::TransferRequest => [
                'person_id' => self::Person,
                'from_school_id' => self::School,
                'to_school_id' => self::School,
                'asked_by' => self::Person,
                'answered_by' => self::Person,
            ],
        };
    }

    /**
     * Which records, by the column that points at them, cannot do without records of this kind: where an undo lets one
     * stay, it lets these stay with it.
     *
     * @return array<string, self>
     */
    public function neededBy(): array
    {
        return match ($this) {
            self::SignIn, self::Enrollment => ['person_id' => self::Person],
            self::Guardianship => ['student_id' => self::Person],
            self::Badge => ['sign_in_id' => self::SignIn],
            self::JoinCode, self::Notice, self::StudentInvitation => ['section_id' => self::Section],
            self::WorkResult => ['notice_id' => self::Notice],
            default => [],
        };
    }

    /** @return list<Unique> */
    public function unique(): array
    {
        return match ($this) {
            self::School => [new Unique(['code'])],
            self::SchoolYear => [new Unique(['school_id', 'name']), new Unique(['school_id'], 'state', 'current')],
            self::Person => [new Unique(['school_id', 'kind', 'number'], 'state', 'merged', true)],
            self::Coordinator => [new Unique(['person_id', 'school_id'])],
            self::SignIn => [new Unique(['user_name'])],
            self::Section => [new Unique(['school_year_id', 'name'], 'state', 'open')],
            self::Enrollment => [new Unique(['section_id', 'person_id'], 'ends_on')],
            self::JoinCode => [new Unique(['code']), new Unique(['section_id'], 'state', 'open')],
            self::Guardianship => [new Unique(['student_id', 'guardian_id'])],
            self::KnownApart => [new Unique(['left_id', 'right_id'])],
            self::Identity => [new Unique(['issuer', 'subject'])],
            self::TransferRequest => [new Unique(['person_id', 'to_school_id'], 'state', 'waiting')],
            self::LetterWording => [new Unique(['school_id', 'kind', 'language'])],
            self::FamilyLetter => [new Unique(['slip'])],
            // Their tokens are hashes of what was drawn at random.
            self::Badge, self::Invitation, self::JoinRequest, self::RoomPass, self::GuardianClaim => [],
            self::Notice, self::StudentInvitation => [],
            self::WorkResult => [new Unique(['notice_id', 'person_id'])],
            self::GuardianInvitation => [new Unique(['guardian_id', 'school_id'], 'state', 'open')],
        };
    }

    /** @return list<string> the columns that tie a record to others or keep it apart from them */
    public function bound(): array
    {
        $ends = match ($this) {
            self::Enrollment => ['begins_on', 'ends_on'],
            self::SchoolYear,
            self::Section,
            self::JoinCode,
            self::Invitation,
            self::JoinRequest,
            self::RoomPass,
            self::GuardianClaim,
            self::GuardianInvitation,
            self::Notice,
            self::StudentInvitation
                => ['state'],
            default => [],
        };

        return array_values(
            array_unique([
                ...array_keys($this->references()),
                ...$ends,
                ...array_merge(...array_map(fn(Unique $u): array => $u->bound(), $this->unique())),
            ]),
        );
    }

    /**
     * Secrets that let somebody sign in, and may be empty: an undo of what set them empties them.
     *
     * @return list<string>
     */
    public function issued(): array
    {
        return match ($this) {
            self::SignIn => ['password', 'passphrase'],
            self::Person => ['pictures'],
            default => [],
        };
    }

    /**
     * Columns whose contents must not be copied into the ledger: they are secrets, or hashes of secrets.
     *
     * @return list<string>
     */
    public function secrets(): array
    {
        return match ($this) {
            self::SignIn => ['passphrase', 'password'],
            self::Person => ['pictures'],
            self::Badge,
            self::Invitation,
            self::RoomPass,
            self::FamilyLetter,
            self::GuardianInvitation,
            self::StudentInvitation
                => ['token_hash'],
            self::JoinRequest => ['password', 'token_hash'],
            default => [],
        };
    }
}
