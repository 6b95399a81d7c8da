<section class="sheet" id="running" aria-labelledby="now" aria-live="polite"
    hx-get="/deployments/{{ $deployment->id }}/live" hx-trigger="every 1s" hx-swap="outerHTML">
    <h2 id="now">Now <small>{{ $view->now() }}</small></h2>
    @if ($view->waitsFor() !== null)
        <p>Another run is at work here: <a href="/deployments/{{ $view->waitsFor()->id }}">{{
            $view->waitsFor()->title() }} to {{ $view->waitsFor()->site->domain }}</a>. This one starts when it has
            ended.</p>
    @elseif ($view->isWaiting())
        <p>Another run is at work here. This one starts when it has ended.</p>
    @endif
    @if (($progress = $view->progress()) !== null)
        @if ($progress->percent() !== null)
            <svg class="meter is-wide" viewBox="0 0 300 10" preserveAspectRatio="none" role="img"
                aria-label="{{ $progress->percent() }} percent">
                <rect class="all" width="300" height="10" rx="3" />
                <rect class="part" width="{{ $progress->width() }}" height="10" rx="3" />
            </svg>
        @endif
        <dl class="pairs">
            @foreach ($progress->pairs() as $term => $words)
                <dt>{{ $term }}</dt>
                <dd>{{ $words }}</dd>
            @endforeach
        </dl>
        <ol class="lanes" aria-label="Connections">
            @foreach ($progress->lanes() as $lane)
                <li><x-path :path="$lane['subject']" /><span>{{ $lane['words'] }}</span></li>
            @endforeach
        </ol>
    @endif
    @if ($view->canBeCancelled())
        <x-action to="/deployments/{{ $deployment->id }}/cancel">Cancel</x-action>
    @elseif ($deployment->cancelled_at !== null)
        <p class="soft">Cancelled; what was begun is put back.</p>
    @endif
</section>
