@use('Cellarium\Core\Words\Count')
@use('App\Models\ChangeState')
@use('App\Text\Amount')
<section class="sheet" id="file-change" aria-labelledby="change"
    @if ($change->state->isGoing()) hx-get="/file-changes/{{ $change->id }}" hx-trigger="every 1s"
        hx-swap="outerHTML" @endif>
    <h1 id="change" class="breakable">{{ $change->title }}
        <small>{{ $change->state->label() }}@if ($change->undone_at !== null), undone
                {{ Amount::ago($change->undone_at) }}@endif</small>
    </h1>
    <dl class="pairs">
        <dt>In</dt>
        <dd><a href="{{ $place->url() }}"><x-path :path="$change->directory" /></a></dd>
        <dt>By</dt>
        <dd>{{ $change->person?->name ?? 'the schedule' }}, {{ $change->created_at->shown('j M Y H:i') }}</dd>
        <dt>Steps</dt>
        <dd>{{ number_format($change->done) }} of {{ number_format(count($steps)) }} done and confirmed by the
            server</dd>
    </dl>
    @if ($change->trouble !== null)
        <p class="word is-trouble" role="alert">@words($change->trouble)</p>
    @endif
    @if ($change->versions->contains('mode_refused', true))
        <p class="word is-soon">The server did not set the permissions of
            {{ Amount::files($change->versions->where('mode_refused', true)->count()) }}; it keeps its own.</p>
    @endif
    @if ($change->proof !== null)
        <p class="word {{ $change->proof['ok'] ? 'is-done' : 'is-trouble' }}">@words($change->proof['words'])</p>
    @endif
    @if (\App\Files\VisitorsPage::isKept($change))
        @include('parts.file-page')
    @endif
    @if ($torn !== null && $change->state === ChangeState::Planned)
        @include('parts.file-torn')
    @endif
    <div class="row-acts">
        @if ($change->state === ChangeState::Planned)
            @if ($torn !== null && $torn->mends !== [])
                @leads('/file-changes/'.$change->id.'/start', 'POST')
                    <form method="post" action="/file-changes/{{ $change->id }}/start" class="act-form">
                        @csrf
                        <button class="act is-main" name="mend" value="1" data-once>Start, and mend
                            {{ Count::choose(count($torn->mends), 'that page', count($torn->mends).' pages') }}
                            too</button>
                    </form>
                @endleads
            @endif
            <x-action to="/file-changes/{{ $change->id }}/start"
                :main="$torn === null || $torn->torn === []">{{ $torn === null || $torn->torn === []
                    ? 'Start: '.Count::words(count($steps), 'step')
                    : 'Start, and leave pages broken' }}</x-action>
        @endif
        @if ($change->state === ChangeState::Partly && $change->undone_at === null)
            <x-action to="/file-changes/{{ $change->id }}/start">Go on with the other
                {{ number_format(count($steps) - $change->done) }}</x-action>
        @endif
        @if ($change->state === ChangeState::Unclear)
            <x-action to="/file-changes/{{ $change->id }}/start" main>Look what became of it, and go on</x-action>
        @endif
        @if ($change->canUndo())
            <x-action to="/file-changes/{{ $change->id }}/undo">Undo</x-action>
        @endif
        <x-action :to="$place->url()" method="GET">To the folder</x-action>
    </div>
    @if ($steps !== [])
        <x-table caption="Steps" class="change-steps">
            <thead>
                <tr>
                    <th scope="col">Step</th>
                    <th scope="col">Path</th>
                    <th scope="col">Now</th>
                </tr>
            </thead>
            <tbody>
                @foreach (array_slice($steps, 0, 200) as $number => $step)
                    <tr>
                        <td>{{ \App\Files\StepWords::forStep($step) }}</td>
                        <td data-label="path"><x-path :path="$step->path->toString()" />
                            @if ($step->to !== null)
                                <br>→ <x-path :path="$step->to->toString()" />
                            @endif
                        </td>
                        <td data-label="now">{{ $number < $change->done ? 'done' : 'not done' }}</td>
                    </tr>
                @endforeach
            </tbody>
        </x-table>
        @if (count($steps) > 200)
            <p class="soft">The first 200 of {{ number_format(count($steps)) }} steps are listed.</p>
        @endif
    @endif
</section>
