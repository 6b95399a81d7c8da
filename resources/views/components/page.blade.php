@props(['title', 'place' => null, 'wide' => false])
@php($finds = \App\Models\Person::clientOfViewer() === null ? 'Find a client, domain, login, package' : 'Find a site')
@php($scheme = \App\Models\Person::viewer()?->settings->scheme ?? 'system')
<!doctype html>
<html lang="en" @if ($scheme !== 'system') data-theme="{{ $scheme }}" @endif>

<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <meta name="htmx-config"
        content='{"includeIndicatorStyles":false,"allowEval":false,"allowScriptTags":false,
            "historyCacheSize":0,"selfRequestsOnly":true}'>
    <title>{{ $title }} · Cellarium</title>
    <link rel="icon" href="/mark.svg" type="image/svg+xml">
    <link rel="stylesheet" href="/vendor/bulma-1.0.4.min.css">
    <link rel="stylesheet" href="/css/fonts.css">
    <x-styles />
    <script src="/vendor/htmx-2.0.11.min.js" defer></script>
    @foreach (['frame', 'fields', 'trees', 'over-time', 'reach-map', 'references'] as $script)
        <x-script :name="$script" />
    @endforeach
</head>

<body>
    <a class="skip" href="#content">To the content</a>
    @auth
        <header class="mast">
            <a class="mark" href="/"><svg viewBox="0 0 24 26" width="24" height="26" aria-hidden="true">
                    <path d="M1.5 25V11a10.5 9.5 0 0 1 21 0v14" fill="none" stroke="#d9a441" stroke-width="2.6" />
                    <path d="M7.5 25V15a4.5 4 0 0 1 9 0v10z" fill="#d9a441" />
                </svg><b>Cellarium</b></a>
            <nav aria-label="Places">
                @foreach (['Today' => '/', 'Accounts' => '/accounts', 'Packages' => '/packages',
                    'Deployments' => '/deployments', 'Backups' => '/backups', 'Record' => '/record'] as $name => $url)
                    @leads($url)
                    <a href="{{ $url }}"
                        @if ($place === $name) aria-current="page" @endif>{{ $name }}</a>
                    @endleads
                @endforeach
            </nav>
            <div class="finder" role="search">
                <label class="is-sr-only" for="find">{{ $finds }}</label>
                <input id="find" type="search" name="q" placeholder="{{ $finds }}"
                    autocomplete="off" hx-get="/find" hx-trigger="input changed delay:150ms, search, focus"
                    hx-target="#found" hx-swap="innerHTML" hx-sync="this:replace">
                <kbd aria-hidden="true">/</kbd>
                <div id="found" aria-live="polite"></div>
            </div>
            <form class="person" method="post" action="/sign-out">
                @csrf
                @leads('/people')
                    <a href="/people" @if ($place === 'People') aria-current="page" @endif>People</a>
                @endleads
                <a href="/me" title="Your own settings">{{ auth()->user()->shortName() }}</a><button>Sign
                    out</button></form>
        </header>
    @endauth
    {{ $where ?? '' }}
    <main id="content" tabindex="-1">
        @if (session('done'))
            <p class="word is-done" role="status">{{ session('done') }}</p>
        @endif
        @if (session('trouble'))
            @include('parts.trouble', ['trouble' => session('trouble')])
        @endif
        {{ $slot }}
    </main>
    {{ $scripts ?? '' }}
</body>

</html>
