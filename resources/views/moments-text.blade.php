<x-page :title="'From A to B: '.$path" place="Backups" wide>
    <x-slot:where><x-site-where :site="$site" here="from A to B"><x-slot:facts><a
        href="/sites/{{ $site->id }}/moments?a={{ $a }}&b={{ $b }}">all that differs</a></x-slot:facts></x-site-where>
    </x-slot:where>
    <section class="sheet" aria-labelledby="text">
        <h1 id="text"><x-path :path="$path" /></h1>
        @if ($texts === null)
            <p class="word is-soon">The texts are too long to be shown side by side.</p>
        @elseif ($texts->differOnlyInLineEnds)
            <p class="word is-soon">The lines are the same; how they end, or how they are written, differs.</p>
        @else
            @include('parts.side-by-side', ['texts' => $texts, 'heads' => ['A', 'B']])
        @endif
    </section>
</x-page>
