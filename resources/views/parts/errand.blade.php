@use('App\View\Amount')
<section class="sheet is-narrow" id="errand" aria-live="polite"
    hx-get="/errands/{{ $errand->id }}" hx-trigger="every 1s" hx-swap="outerHTML"
>
    <h1>{{ $errand->kind->title() }}</h1>
    <p>The server has not answered yet. This page goes on by itself; nothing is lost when it is left.</p>
    <dl class="pairs">
        <dt>Elapsed</dt>
        <dd>{{ $errand->started_at === null ? 'waits its turn' : Amount::seconds($errand->started_at->diffInSeconds(now())) }}</dd>
    </dl>
    <x-action :to="$errand->back" method="GET">Go on without waiting</x-action>
</section>
