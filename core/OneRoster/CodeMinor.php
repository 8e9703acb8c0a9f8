<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/** What the service says is wrong, in the words of the standard (imsx_codeMinorFieldValue), with the HTTP status. */
enum CodeMinor: string
{
    case InvalidFilterField = 'invalid_filter_field';
    case InvalidSelectionField = 'invalid_selection_field';
    case InvalidSortField = 'invalid_sort_field';
    case InvalidData = 'invaliddata';
    case Unauthorised = 'unauthorisedrequest';
    case Forbidden = 'forbidden';
    case UnknownObject = 'unknownobject';
    case ServerBusy = 'server_busy';
    case InternalError = 'internal_server_error';

    public function status(): int
    {
        return match ($this) {
            self::InvalidFilterField, self::InvalidSelectionField, self::InvalidSortField => 400,
            self::InvalidData => 422,
            self::Unauthorised => 401,
            self::Forbidden => 403,
            self::UnknownObject => 404,
            self::ServerBusy => 429,
            self::InternalError => 500,
        };
    }
}
