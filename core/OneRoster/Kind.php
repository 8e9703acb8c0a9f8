<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/**
 * Kinds of record of the rostering service, OneRoster 1.2 (1EdTech, "OneRoster Rostering Service Information Model",
 * version 1.2). Names and fields are from memory of the standard: no copy of it was at hand when this was written.
 */
enum Kind: string
{
    case Orgs = 'orgs';
    case AcademicSessions = 'academicSessions';
    case Courses = 'courses';
    case Classes = 'classes';
    case Users = 'users';
    case Enrollments = 'enrollments';
    case Demographics = 'demographics';

    /** The name around a single record. */
    public function one(): string
    {
        return match ($this) {
            self::Orgs => 'org',
            self::AcademicSessions => 'academicSession',
            self::Courses => 'course',
            self::Classes => 'class',
            self::Users => 'user',
            self::Enrollments => 'enrollment',
            // The standard has no singular of it.
            self::Demographics => 'demographics',
        };
    }

    /**
     * Names under which the service offers records of the kind, all or some of them: the values a field must have.
     *
     * @return array<string, array{string, list<string>}|null> name of the collection to field and values
     */
    public function collections(): array
    {
        return match ($this) {
            self::Orgs => ['orgs' => null, 'schools' => ['type', ['school']]],
            self::AcademicSessions => [
                'academicSessions' => null,
                'terms' => ['type', ['term', 'semester']],
                'gradingPeriods' => ['type', ['gradingPeriod']],
            ],
            self::Users => [
                'users' => null,
                'students' => ['roles.role', ['student']],
                'teachers' => ['roles.role', ['teacher']],
            ],
            default => [$this->value => null],
        };
    }

    /** @return array<string, Field> by name, in the order of the standard */
    public function fields(): array
    {
        $of = [
            new Field('sourcedId', FieldType::Text, true),
            new Field('status', FieldType::Word, true, words: ['active', 'tobedeleted']),
            new Field('dateLastModified', FieldType::Instant, true),
            ...match ($this) {
                self::Orgs => [
                    new Field('name', FieldType::Text, true),
                    new Field(
                        'type',
                        FieldType::Word,
                        true,
                        words: ['department', 'school', 'district', 'local', 'state', 'national'],
                    ),
                    new Field('identifier', FieldType::Text),
                    new Field('parent', FieldType::Reference, to: 'org'),
                    new Field('children', FieldType::Reference, many: true, to: 'org'),
                ],
                self::AcademicSessions => [
                    new Field('title', FieldType::Text, true),
                    new Field('startDate', FieldType::Day, true),
                    new Field('endDate', FieldType::Day, true),
                    new Field(
                        'type',
                        FieldType::Word,
                        true,
                        words: ['gradingPeriod', 'semester', 'schoolYear', 'term'],
                    ),
                    new Field('parent', FieldType::Reference, to: 'academicSession'),
                    new Field('children', FieldType::Reference, many: true, to: 'academicSession'),
                    new Field('schoolYear', FieldType::Text, true),
                ],
                self::Courses => [
                    new Field('title', FieldType::Text, true),
                    new Field('schoolYear', FieldType::Reference, to: 'academicSession'),
                    new Field('courseCode', FieldType::Text),
                    new Field('grades', FieldType::Text, many: true),
                    new Field('subjects', FieldType::Text, many: true),
                    new Field('org', FieldType::Reference, true, to: 'org'),
                    new Field('subjectCodes', FieldType::Text, many: true),
                ],
                self::Classes => [
                    new Field('title', FieldType::Text, true),
                    new Field('classCode', FieldType::Text),
                    new Field('classType', FieldType::Word, true, words: ['homeroom', 'scheduled']),
                    new Field('location', FieldType::Text),
                    new Field('grades', FieldType::Text, many: true),
                    new Field('subjects', FieldType::Text, many: true),
                    new Field('course', FieldType::Reference, true, to: 'course'),
                    new Field('school', FieldType::Reference, true, to: 'org'),
                    new Field('terms', FieldType::Reference, true, many: true, to: 'academicSession'),
                    new Field('subjectCodes', FieldType::Text, many: true),
                    new Field('periods', FieldType::Text, many: true),
                ],
                self::Users => [
                    new Field('userMasterIdentifier', FieldType::Text),
                    new Field('username', FieldType::Text),
                    new Field('userIds', FieldType::Identifier, many: true),
                    new Field('enabledUser', FieldType::Flag, true),
                    new Field('givenName', FieldType::Text, true),
                    new Field('familyName', FieldType::Text, true),
                    new Field('middleName', FieldType::Text),
                    new Field('preferredFirstName', FieldType::Text),
                    new Field('preferredMiddleName', FieldType::Text),
                    new Field('preferredLastName', FieldType::Text),
                    new Field('pronouns', FieldType::Text),
                    new Field('roles', FieldType::Role, true, many: true),
                    new Field('primaryOrg', FieldType::Reference, to: 'org'),
                    new Field('identifier', FieldType::Text),
                    new Field('email', FieldType::Text),
                    new Field('sms', FieldType::Text),
                    new Field('phone', FieldType::Text),
                    new Field('agents', FieldType::Reference, many: true, to: 'user'),
                    new Field('grades', FieldType::Text, many: true),
                ],
                self::Enrollments => [
                    new Field('user', FieldType::Reference, true, to: 'user'),
                    new Field('class', FieldType::Reference, true, to: 'class'),
                    new Field('school', FieldType::Reference, true, to: 'org'),
                    new Field('role', FieldType::Word, true, words: ['administrator', 'proctor', 'student', 'teacher']),
                    new Field('primary', FieldType::Flag),
                    new Field('beginDate', FieldType::Day),
                    new Field('endDate', FieldType::Day),
                ],
                self::Demographics => [
                    new Field('birthDate', FieldType::Day),
                    new Field('sex', FieldType::Word, words: ['male', 'female', 'unspecified', 'other']),
                ],
            },
        ];

        return array_combine(array_map(fn(Field $f): string => $f->name, $of), $of);
    }

    /**
     * The kind and the values a collection stands for.
     *
     * @return array{self, array{string, list<string>}|null}|null null where there is no such collection
     */
    public static function named(string $collection): ?array
    {
        foreach (self::cases() as $kind) {
            if (array_key_exists($collection, $kind->collections())) {
                return [$kind, $kind->collections()[$collection]];
            }
        }

        return null;
    }
}
