<!doctype html>
<html lang="en">
<body style="margin:0;padding:32px;background:#FAF7F0;color:#1D2B2A;font-family:'Atkinson Hyperlegible Next',Verdana,sans-serif;font-size:16px;line-height:1.5">
<p style="margin:0 0 24px;padding-bottom:8px;border-bottom:1px solid #1D2B2A;font-family:'Source Serif 4',Georgia,serif;font-weight:600">{{ $schoolName }}</p>
<p>{{ $inviter }} asks you to be {{ $role }} of <b>{{ $section }}</b>.</p>
<p><a href="{{ $link }}" style="display:inline-block;padding:12px 20px;background:#1D2B2A;color:#FAF7F0;text-decoration:none;border-radius:2px">Read it and answer</a></p>
<p style="color:#5A6663">The link works until {{ $expires }} and only for you. If you do not know {{ $inviter }}, leave it alone.</p>
</body>
</html>
