@use('App\Text\Amount')
<section class="sheet is-narrow" id="errand" aria-live="polite"
    hx-get="/errands/{{ $errand->id }}{{ request()->boolean('whole') ? '?whole=1' : '' }}"
    hx-trigger="every 1s" hx-swap="outerHTML">
    <h1>{{ $task::title() }}</h1>
    <p>{{ $task::waitsFor() }} {{ $task::isTakenHere() ? ''
        : 'This page goes on by itself; nothing is lost when it is left.' }}</p>
    <dl class="pairs">
        <dt>Elapsed</dt>
        <dd>{{ $errand->started_at === null ? 'waits its turn'
            : Amount::seconds($errand->started_at->diffInSeconds(now())) }}
        </dd>
    </dl>
    <div class="row-acts">
        @if ($errand->started_at === null || $task::onlyLooks())
            <x-action to="/errands/{{ $errand->id }}/cancel">Cancel</x-action>
        @endif
        @unless ($task::isTakenHere())
            <x-action :to="$errand->back" method="GET">Go on without waiting</x-action>
        @endunless
    </div>
</section>
