@use('App\Models\DeploymentState')
@use('App\Models\Deployment')
@use('App\Text\Amount')
<div id="run"
    @if ($deployment->state === DeploymentState::Drafting) hx-get="/deployments/{{ $deployment->id }}/live"
    hx-trigger="every 1s" hx-swap="outerHTML" @endif>
    <section class="sheet is-narrow" aria-labelledby="look" aria-live="polite">
        @if ($deployment->state === DeploymentState::Drafting)
            <h1 id="look">Looking at the server</h1>
            <p>The plan follows from what is in <x-path :path="$site->document_root" /> now. Nothing is changed by
                looking.</p>
            <dl class="pairs">
                @if ($deployment->progress !== null)
                    <dt>Seen</dt>
                    <dd>
                        {{ number_format($deployment->progress['entries']) }} files and directories,
                        {{ number_format($deployment->progress['directories']) }} directories listed
                    </dd>
                @endif
                <dt>Elapsed</dt>
                <dd>{{ $deployment->started_at === null
                    ? 'waits its turn'
                    : Amount::seconds($deployment->started_at->diffInSeconds(now())) }}
                </dd>
            </dl>
            @if ($deployment->cancelled_at === null)
                <x-action to="/deployments/{{ $deployment->id }}/cancel">Cancel</x-action>
            @else
                <p class="soft">Cancelled; it ends with the answer the server owes.</p>
            @endif
        @else
            <h1 id="look">{{ $deployment->state === DeploymentState::Cancelled ? 'Cancelled' : 'No plan' }}</h1>
            <p class="word is-trouble" role="alert">
                <bdi>@words($deployment->trouble ?? 'It was cancelled before it began.')</bdi></p>
            <p>Nothing on the server was changed.</p>
            <div class="row-acts">
                @if ($deployment->question !== null)
                    <x-action to="/deployments/{{ $deployment->id }}/accept">It is right, plan with what is there
                        now</x-action>
                @endif
                @if ($deployment->state === DeploymentState::NotPlanned)
                    <x-action to="/deployments/{{ $deployment->id }}/plan-again">Try again</x-action>
                @endif
                <x-action to="/accounts/{{ $account->id }}" method="GET" main>Look at the account</x-action>
            </div>
        @endif
    </section>
</div>
