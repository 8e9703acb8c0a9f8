{{ $schoolName }}

{!! $name !!} asks to come into {!! $section !!} and gave this address.

If that is you, confirm it here within {{ $days }} days:
{!! $link !!}

If it is not, do nothing: no account is made.
