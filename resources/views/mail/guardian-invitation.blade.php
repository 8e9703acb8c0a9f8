<!doctype html>
<html lang="{{ $words->language }}" dir="{{ $words->fromRight() ? 'rtl' : 'ltr' }}">
<body style="margin:0;padding:32px;background:#FAF7F0;color:#1D2B2A;font-family:'Atkinson Hyperlegible Next',Verdana,sans-serif;font-size:16px;line-height:1.5">
<p style="margin:0 0 24px;padding-bottom:8px;border-bottom:1px solid #1D2B2A;font-family:'Source Serif 4',Georgia,serif;font-weight:600">{{ $schoolName }}</p>
<p>{{ $asks }}</p>
<p>{{ $why }}</p>
<p>{{ $go }}<br><a href="{{ $link }}" style="color:#1D2B2A" dir="ltr">{{ $link }}</a></p>
<p style="color:#5A6663">{{ $not }}</p>
</body>
</html>
