@use('Cellarium\Core\Words\Count')
<section class="sheet" aria-labelledby="first">
    <h2 id="first">Backup first</h2>
    <p>{{ $view->backupFirst() }}</p>
    @if ($deployment->databases_ahead !== null)
        <p class="soft">{{ $deployment->databases_ahead }}</p>
    @endif
    @unless ($view->room()->isEnough())
        <p class="is-now-text">There is no room for it as it is. {{ $view->room()->sentence() }}</p>
    @endunless
    <div class="row-acts">
        @if (! $view->room()->isEnough())
            <x-action to="/deployments/{{ $deployment->id }}/plan-again" main>Look at the server again</x-action>
        @elseif ($view->openQuestions() > 0)
            <button class="act is-main" disabled>Back up, then replace</button>
            <span class="soft">after {{ Count::words($view->openQuestions(), 'answer') }}</span>
        @else
            <x-action to="/deployments/{{ $deployment->id }}/start" main>Back up, then replace</x-action>
        @endif
        <x-action to="/sites/{{ $view->site->id }}/backups">Back up only</x-action>
        @leads('/deployments/discard', 'POST')
            <form method="post" action="/deployments/discard" class="act-form">@csrf
                <input type="hidden" name="plans[]" value="{{ $deployment->id }}">
                <button class="act" data-once>Discard the plan</button>
            </form>
        @endleads
    </div>
</section>
