@foreach ($lines as $line)
{!! $line !!}
@endforeach

If that was not you, or should not have happened, tell {!! $schoolName !!} today.
