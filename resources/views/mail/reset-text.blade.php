{!! $schoolName !!}

@if ($minutes <= 1440)
Somebody asked for a new password for {!! $userName !!}.

If it was you, set one here within {{ $minutes }} minutes:
{!! $link !!}

The link works once. All devices that are signed in now are signed out.
If it was not you, do nothing: the old password goes on working.
@else
There is an account for you: {!! $userName !!}

Choose its password here within {{ intdiv($minutes, 1440) }} days:
{!! $link !!}

The link works once, and shows that this address is yours.
@endif
