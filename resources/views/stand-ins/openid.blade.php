<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Stand-in sign-on</title>
</head>
<body style="margin:0 auto;max-width:28rem;padding:32px 20px;background:#FAF7F0;color:#1D2B2A;font-family:sans-serif;font-size:16px;line-height:1.5">
<h1 style="font-size:1.5rem">Stand-in for the school’s sign-on</h1>
<p>No password is asked: this page stands where the real provider would ask for one. Who are you?</p>
<ul style="list-style:none;padding:0">
@foreach ($people as $person)
<li style="border-bottom:1px solid #D9D2C3"><a style="display:block;padding:12px 0;color:#1D2B2A" href="?{{ http_build_query([...$query, 'as' => $person->email]) }}">{{ $person->given_name }} {{ $person->family_name }}<br><span style="color:#5A6663">{{ $person->email }}</span></a></li>
@endforeach
</ul>
</body>
</html>
