<!doctype html>
<html lang="en">

<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    @if ($again ?? false)
        <meta http-equiv="refresh" content="5">
    @endif
    <title>{{ $title }} · Cellarium</title>
    <link rel="icon" href="/mark.svg" type="image/svg+xml">
    <link rel="stylesheet" href="/vendor/bulma-1.0.4.min.css">
    <link rel="stylesheet" href="/css/fonts.css">
    <link rel="stylesheet" href="/css/frame.css">
    <link rel="stylesheet" href="/css/accounts.css">
    <script src="/js/back.js" defer></script>
</head>

<body>
    <main id="content">
        <section class="sheet sign-in">
            <h1>{{ $title }}</h1>
            <p>{{ $words }}</p>
            @if ($again ?? false)
            <p class="soft">This page tries again every five seconds.</p>@else<p><a href="/" data-back>To Today</a>
                </p>
            @endif
        </section>
    </main>
</body>

</html>
