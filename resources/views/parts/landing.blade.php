@use('App\Text\Amount')
<section class="sheet" aria-labelledby="landing">
    <details @if ($landing->seenAt !== null) open @endif>
        <summary>
            <h2 id="landing">{{ $landing->seenAt === null ? 'Where it goes' : 'The tree afterwards' }}
                <small><x-path :path="$landing->into" /></small></h2>
            @foreach ($landing->totals as $total)
                <x-tag :tone="$total['tone']">{{ $total['words'] }}</x-tag>
            @endforeach
        </summary>
        <table class="facts-table tree plan">
            <thead>
                <tr>
                    <th>Directory or file</th>
                    <th>In the package</th>
                    <th>On the server</th>
                    <th>Afterwards</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($landing->tree->rows as $row)
                    @include('parts.plan-row')
                @endforeach
            </tbody>
        </table>
        @if ($landing->tree->hidden > 0)
            <p class="soft">{{ number_format($landing->tree->hidden) }} more rows, mostly files that stay as they are,
                are counted above and not shown.</p>
        @endif
    </details>
</section>
