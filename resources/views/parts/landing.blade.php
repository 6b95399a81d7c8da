@use('App\Text\Amount')
<section class="sheet" aria-labelledby="landing">
    <details @if ($landing->seenAt !== null) open @endif>
        <summary>
            <h2 id="landing">{{ $landing->seenAt === null ? 'Where it goes' : 'The tree afterwards' }}
                <small><x-path :path="$landing->into" /></small></h2>
            @foreach ($landing->totals->words() as $total)
                <x-tag :tone="$total['tone']">{{ $total['words'] }}</x-tag>
            @endforeach
        </summary>
        @include('parts.plan-table', [
            'tree' => $landing->tree,
            'deployment' => null,
            'rowsAt' => "/packages/$package->id/landing?site=$site->id&",
        ])
    </details>
</section>
