@php($climbing = $account->isClimbing())
<section class="sheet" id="ladder-sheet" aria-labelledby="ladder"
    @if ($climbing) hx-get="/accounts/{{ $account->id }}/ladder" hx-trigger="every 1s" hx-swap="outerHTML" @endif>
    <h2 id="ladder">Connection <small>{{ $view->tried() }}</small></h2>
    @if ($view->holds())
        <details class="held-ladder">
            <summary><span class="proof">{{ $view->protocol() }}: all {{ $view->checks() }} checks hold</span></summary>
            @include('parts.rungs', ['rungs' => $account->ladder, 'remedies' => null, 'pin' => $account->pin])
        </details>
    @else
        @include('parts.rungs', [
            'rungs' => $account->ladder ?? [],
            'remedies' => $climbing ? null : "/accounts/$account->id/remedy",
            'pin' => $account->pin,
        ])
    @endif
    @if ($account->wasCutOff())
        <p class="word is-trouble" role="alert">This attempt was broken off half way, so it says nothing about the
            checks
            above. Connect again.</p>
    @endif
    @if ($climbing)
        <p class="soft" role="status">Trying the next check …</p>
        <div class="row-acts"><x-action to="/accounts/{{ $account->id }}/cancel">Cancel</x-action></div>
    @else
        <div class="row-acts">
            <x-action
                to="/accounts/{{ $account->id }}/connect">{{ $account->tried_at === null ? 'Connect'
                    : 'Connect again' }}</x-action>
            <x-action to="/accounts/{{ $account->id }}/edit" method="GET">Settings</x-action>
        </div>
    @endif
</section>
