@use('Cellarium\Core\Words\Count')
@use('App\Text\Amount')
<section aria-labelledby="torn">
    <h2 id="torn">{{ $torn->broken() === 0 ? 'No page leads there'
        : Count::words($torn->broken(), 'page').' would lead nowhere' }}
        <small>{{ Count::words($torn->pages, 'page') }} looked
            into{{ $torn->fetched === 0 ? '' : ", $torn->fetched of them read from the server just now" }}</small></h2>
    @if ($torn->unread !== [])
        <p class="word is-trouble">{{ Amount::files(count($torn->unread)) }} could not be read, so it is not known where
            they lead: @foreach (array_slice($torn->unread, 0, 5) as [$page, $why])
                <x-path :path="$page" /> (@words($why)){{ $loop->last ? '.' : ', ' }}
            @endforeach</p>
    @endif
    @if ($torn->torn !== [])
        @if ($torn->mendable() < count($torn->torn))
            <p class="word is-soon">{{ count($torn->torn) - $torn->mendable() }} of {{ count($torn->torn) }} references
                cannot be mended: what they lead to goes, or is no longer below the document root.</p>
        @endif
        <x-table caption="References that would lead nowhere">
            <thead>
            <tr>
                <th scope="col">Page</th>
                <th scope="col">Line</th>
                <th scope="col">Says</th>
                <th scope="col">Would say</th>
            </tr>
        </thead>
            <tbody>
                @foreach (array_slice($torn->torn, 0, 100) as $one)
                    <tr>
                        <td><x-path :path="$one->page" /></td>
                        <td data-label="line">{{ $one->line }}</td>
                        <td data-label="says"><code class="breakable">{{ $one->raw }}</code></td>
                        <td data-label="would say">
                            @if ($one->written === null)
                                <span class="is-now-text">nothing mends it</span>
                            @else
                                <code class="breakable">{{ $one->written }}</code>
                            @endif
                        </td>
                    </tr>
                @endforeach
            </tbody>
        </x-table>
        @if (count($torn->torn) > 100)
            <p class="soft">The first 100 of {{ number_format(count($torn->torn)) }} are listed.</p>
        @endif
        @foreach ($texts as $page => $side)
            <details class="torn-text">
                <summary>Before and after in <x-path :path="(string) $page" /></summary>
                @include('parts.side-by-side', ['texts' => $side, 'heads' => ['on the server', 'mended']])
            </details>
        @endforeach
    @endif
</section>
