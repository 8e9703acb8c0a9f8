<!doctype html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <meta name="csrf-token" content="{{ csrf_token() }}">
    <meta name="color-scheme" content="light dark">
    <title>Vantrel</title>
    <link rel="icon" href="data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 16 16'%3E%3Crect width='16' height='16' fill='%231D2B2A'/%3E%3Cpath d='M4 4h8M4 8h8M4 12h5' stroke='%23FAF7F0'/%3E%3C/svg%3E">
    @viteReactRefresh
    @vite('resources/js/main.tsx')
</head>
<body>
<div id="app"><p class="first-seen">Vantrel</p></div>
<noscript><p>Vantrel needs JavaScript. Turn it on for this address, or use another browser.</p></noscript>
</body>
</html>
