@php($behind = count(array_filter($installed, fn($at) => $at->isBehind)))
<section class="sheet" aria-labelledby="installed-at">
    <h2 id="installed-at">Installed <small>as the servers showed it at their last look</small></h2>
    @if ($behind > 0)
        <p><x-tag tone="soon">{{ number_format($behind) }} behind</x-tag> an older version is installed there.</p>
    @endif
    <x-table caption="Sites it is installed at">
        <tbody>
            @foreach (array_slice($installed, 0, 20) as $at)
                <tr>
                    <td><a href="/sites/{{ $at->site }}"><x-domain :name="$at->domain" /></a>
                        @if ($at->directory !== '/')
                            <div class="soft"><x-path :path="$at->directory" /></div>
                        @endif
                    </td>
                    <td>{{ $at->version ?? 'of no known version' }}</td>
                    <td>
                        @if ($at->isBehind)
                            @leads('/deployments/new')
                                <a
                                    href="/deployments/new?{{ http_build_query(['package' => $package->id,
                                        'site' => $at->site]) }}">Deploy</a>
                            @endleads
                        @endif
                    </td>
                </tr>
            @endforeach
        </tbody>
    </x-table>
    @if (count($installed) > 20)
        <p class="soft">and {{ number_format(count($installed) - 20) }} more</p>
    @endif
</section>
