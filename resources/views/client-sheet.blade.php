<!doctype html>
<html lang="en">

<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <meta name="robots" content="noindex">
    <title>{{ $page->title() }} · {{ $page->sheet->agency }}</title>
    <link rel="icon" href="/mark.svg" type="image/svg+xml">
    <link rel="stylesheet" href="/css/fonts.css">
    <link rel="stylesheet" href="/css/client-sheet.css?v={{ filemtime(public_path('css/client-sheet.css')) }}">
    <script src="/js/client-sheet.js?v={{ filemtime(public_path('js/client-sheet.js')) }}" defer></script>
</head>

<body class="bare">
    <nav class="tools" aria-label="This sheet">
        <button type="button" data-print>Print</button>
        <a href="{{ $json }}">Its file, signed</a>
    </nav>
    <main>@include('parts.client-sheet')</main>
</body>

</html>
