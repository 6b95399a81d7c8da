<section class="sheet" aria-labelledby="reach">
    <h2 id="reach">Reach <small>which login can touch which directory, proven by signing in as each</small></h2>
    @if ($account->tree === null)
        <p class="calm">The directories of this account were not looked at yet. Connect to see them.</p>
    @else
        @include('parts.reach-map')
    @endif
</section>
