<x-page :title="'Set aside: '.$site->domain" place="Accounts">
    <x-slot:where><x-site-where :site="$site" here="set aside" /></x-slot:where>
    <section class="sheet" aria-labelledby="aside">
        <h1 id="aside">Set aside <small>taken out by deployments and by hand, held for
                {{ config('cellarium.set_aside_days') }} days</small></h1>
        @if ($files->isEmpty())
            <p class="calm">Nothing is held. What is taken out of this site is listed here and can be restored
                file by file.</p>
        @else
            @include('parts.set-aside')
            <x-pages :of="$files" what="files" />
        @endif
    </section>
</x-page>
