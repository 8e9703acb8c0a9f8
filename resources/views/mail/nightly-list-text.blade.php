{!! $file !!}, for {!! $schoolName !!}

@if ($trouble !== '')
Nothing was written. {!! $trouble !!}
The file is in the folder stopped/.
@else
{!! $sentence !!}
@endif
@foreach ($notes as $note)

Note: {!! $note !!}
@endforeach
@if ($rows !== [])

Rows that wait for you:
@foreach ($rows as $row)
- {!! $row !!}
@endforeach
Bring the file in at Intake to work them.
@endif

{!! $link !!}
