{!! $schoolName !!}

{!! $asks !!}
{!! $why !!}

{!! $go !!}
{!! $link !!}

{!! $not !!}
