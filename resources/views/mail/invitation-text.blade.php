{!! $inviter !!} asks you to be {!! $role !!} of {!! $section !!} at {!! $schoolName !!}.

Read it and answer: {!! $link !!}

The link works until {!! $expires !!} and only for you. If you do not know {!! $inviter !!}, leave it alone.
