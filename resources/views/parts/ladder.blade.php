@use('App\Text\Amount')
@php($climbing = $account->isClimbing())
<section class="sheet" id="ladder-sheet" aria-labelledby="ladder"
    @if ($climbing) hx-get="/accounts/{{ $account->id }}/ladder" hx-trigger="every 1s" hx-swap="outerHTML" @endif>
    <h2 id="ladder">Connection
        <small>{{ $climbing ? 'being tried' : ($account->tried_at === null ? 'not tried yet'
            : Amount::ago($account->tried_at).($account->latency_ms === null ? ''
                : ", answers in $account->latency_ms ms")) }}</small>
    </h2>
    @include('parts.rungs', [
        'rungs' => $account->ladder ?? [],
        'remedies' => $climbing ? null : "/accounts/$account->id/remedy",
        'pin' => $account->pin,
    ])
    @if ($account->wasCutOff())
        <p class="word is-trouble" role="alert">This attempt was broken off half way, so it says nothing about the rungs
            above. Connect again.</p>
    @endif
    @if ($climbing)
        <p class="soft" role="status">Climbing on …</p>
        <div class="row-acts"><x-action to="/accounts/{{ $account->id }}/cancel">Cancel</x-action></div>
    @else
        <div class="row-acts"><x-action
                to="/accounts/{{ $account->id }}/connect">{{ $account->tried_at === null ? 'Connect'
                    : 'Connect again' }}</x-action>
            <x-action to="/accounts/{{ $account->id }}/edit" method="GET">Change the account</x-action></div>
    @endif
</section>
