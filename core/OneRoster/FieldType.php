<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/** What a field of a record holds. */
enum FieldType
{
    case Text;
    /** One of a list of words. */
    case Word;
    /** `true` or `false`, as words. */
    case Flag;
    /** YYYY-MM-DD. */
    case Day;
    /** ISO 8601 in UTC, with milliseconds. */
    case Instant;
    /** `href`, `sourcedId` and `type` of another record. */
    case Reference;
    /** `type` and `identifier`: a name of a person in another program. */
    case Identifier;
    /** `roleType`, `role` and `org`: what a person is, and where. */
    case Role;
}
