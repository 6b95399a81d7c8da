@use('Cellarium\Core\Words\Count')
<section class="sheet" id="running" aria-labelledby="now" aria-live="polite"
    hx-get="/deployments/{{ $deployment->id }}/live" hx-trigger="every 1s" hx-swap="outerHTML">
    <h2 id="now">Now <small>{{ $view->isPaused() ? 'paused, '.$view->now() : $view->now() }}</small></h2>
    @if ($view->waitsFor() !== null)
        <p>Another run is at work here: <a href="/deployments/{{ $view->waitsFor()->id }}">{{
            $view->waitsFor()->title() }} to {{ $view->waitsFor()->site->domain }}</a>. This one starts when it has
            ended.</p>
    @elseif ($view->isWaiting())
        <p>Another run is at work here. This one starts when it has ended.</p>
    @endif
    @if (($progress = $view->progress()) !== null)
        @if ($progress->percent() !== null)
            <x-progress :percent="$progress->percent()" />
        @endif
        <dl class="pairs">
            @foreach ($progress->pairs() as $term => $words)
                <dt>{{ $term }}</dt>
                <dd>{{ $words }}</dd>
            @endforeach
        </dl>
        <details id="run-details" data-stays>
            <summary>details</summary>
            @if ($progress->line() !== '')
                <svg class="speed" viewBox="0 0 300 40" preserveAspectRatio="none" role="img"
                    aria-label="{{ $progress->lineInWords() }}">
                    <polyline points="{{ $progress->line() }}" />
                </svg>
            @endif
            <dl class="pairs">
                @foreach ($progress->details() as $term => $words)
                    <dt>{{ $term }}</dt>
                    <dd>{{ $words }}</dd>
                @endforeach
            </dl>
        </details>
        @if ($progress->failed() !== [])
            <div class="word is-trouble" role="alert">
                @if ($view->isUnproven())
                    <p>{{ Count::choose(count($progress->failed()), 'An address does',
                        count($progress->failed()).' addresses do')
                        }} not show what was sent. Visitors have the new site, and it is not proven.
                        Without an answer it goes back at {{ $deployment->decide_until?->shown('H:i') }}.</p>
                @else
                    <p>{{ Count::choose(count($progress->failed()), 'A file', count($progress->failed()).' files') }}
                        could not be sent. Visitors see the old site. Without an answer it goes back at
                        {{ $deployment->decide_until?->shown('H:i') }}.</p>
                @endif
                <ul>
                    @foreach ($progress->failed() as $failed)
                        <li><x-path :path="$failed['subject']" /> <bdi>@words($failed['words'])</bdi></li>
                    @endforeach
                </ul>
            </div>
            @if ($view->isUnproven())
                <x-action to="/deployments/{{ $deployment->id }}/retry" main>Prove again</x-action>
                @if ($progress->mends() !== [])
                    <x-action to="/deployments/{{ $deployment->id }}/retry" name="mend" value="1">Set
                        {{ implode(', ', array_slice($progress->mends(), 0, 3)) }}{{ count($progress->mends()) > 3
                            ? ' and '.(count($progress->mends()) - 3).' more' : '' }}, then prove again</x-action>
                @endif
            @else
                <x-action to="/deployments/{{ $deployment->id }}/retry" main>Try these again</x-action>
            @endif
        @endif
    @endif
    <div class="row-acts">
        @if ($view->isPaused())
            <x-action to="/deployments/{{ $deployment->id }}/go-on" main>Go on</x-action>
        @elseif ($view->canBePaused())
            <x-action to="/deployments/{{ $deployment->id }}/pause">Pause</x-action>
        @endif
        @if ($view->canBeCancelled())
            <x-action to="/deployments/{{ $deployment->id }}/cancel">Stop and go back</x-action>
        @elseif ($deployment->cancelled_at !== null)
            <p class="soft">Stopped; what was begun is put back.</p>
        @endif
        <button type="button" class="act is-quiet" data-notify hidden>Tell me when it ends</button>
    </div>
    @if (($progress = $view->progress()) !== null)
        @if ($sent !== [])
            <ol class="files-going" aria-label="Files">
                @foreach ($sent as $file)
                    <li class="is-{{ $file->tone }}"><x-path :path="$file->path" /><span>{{ $file->words }}</span></li>
                @endforeach
            </ol>
        @elseif ($progress->failed() === [])
            <ol class="files-going" aria-label="Connections">
                @foreach ($progress->connections() as $file)
                    <li><x-path :path="$file['subject']" /><span>{{ $file['words'] }}</span></li>
                @endforeach
            </ol>
        @endif
    @endif
</section>
