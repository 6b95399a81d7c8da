@use('Cellarium\Core\Words\Count')
@use('Cellarium\Core\Reach\Extent')
@if ($foresight === null)
    <p class="bad">
        This is not a directory: it starts with a slash and has no “..” in it.</p>
@else
    @php($reach = $foresight->reach)
    @php($clients = $account->sites->mapWithKeys(fn($site) => [$site->domain => $site->client_id === null
        || $site->client_id === $account->client_id ? null : $site->client->name]))
    <p class="reach-head"><x-path class="strong" :path="$reach->directory" /></p>
    @if ($foresight->exists === false)
        <p class="word is-trouble">It is not there. Most often that is a typing mistake: the user would land in an empty
            place that is not the site.</p>
    @elseif ($foresight->exists === null)
        <p class="word is-kept">Nobody has looked there yet, so it is not known whether it exists.</p>
    @elseif ($foresight->empty)
        <p class="word is-kept">It is empty.</p>
    @endif
    @if ($reach->isWholeAccount())
        <p class="word is-trouble">The whole account: every site, mail and logs with it.</p>
    @elseif ($foresight->othersSites !== [])
        <p class="word is-trouble">Another client’s
            {{ Count::choose(count($foresight->othersSites), 'site', 'sites') }}:
            {{ implode(', ', $foresight->othersSites) }}.</p>
    @elseif ($reach->isTooWide())
        <p class="word is-trouble">Wider than one job needs: @words($reach->sentence()).</p>
    @endif
    @if ($reach->sites === [])
        <p class="calm">No site of this account is known yet, so nothing can be said about sites.</p>
    @else
        <ul class="extents">
            @foreach ([[Extent::Whole, 'all of it'], [Extent::Part, 'a part'], [Extent::None,
                'not reached']] as [$extent, $words])
                @foreach ($reach->with($extent) as $site)
                    <li class="is-{{ $extent->value }}"><svg width="34" height="14" viewBox="0 0 34 14"
                            aria-hidden="true">
                            <rect class="all" x="1" y="1" width="32" height="12" rx="3" />
                            @if ($extent !== Extent::None)
                                <rect class="part" x="1" y="1" width="{{ $extent === Extent::Whole ? 32 : 13 }}"
                                    height="12" rx="3" />
                            @endif
                        </svg>
                        <span><b><x-domain :name="$site->domain" /></b>
                            @if ($clients[$site->domain] ?? null)
                                <x-tag tone="now">{{ $clients[$site->domain] }}</x-tag>
                            @endif
                            <small>
                                {{ $words }}{{ $site->parts === [] ? '' : ': '.implode(', ', $site->parts) }}</small>
                        </span>
                    </li>
                @endforeach
            @endforeach
        </ul>
    @endif
    @foreach ([['secrets', 'Files with passwords or keys'], ['backups', 'Copies and dumps']] as [$kind, $words])
        @if ($foresight->$kind !== [])
            <h3 class="small-head">{{ $words }} <x-tag
                    tone="soon">{{ collect($foresight->$kind)->map(fn($names) => count($names))->sum() }}</x-tag>
            </h3>
            <ul class="found-places">
                @foreach (array_slice($foresight->$kind, 0, 6, true) as $directory => $names)
                    <li><x-path :path="$directory" /> <span
                            class="soft">{{ implode(', ', array_slice($names, 0, 4)) }}{{ count($names) > 4
                                ? ' and '.(count($names) - 4).' more' : '' }}</span>
                    </li>
                    @endforeach @if (count($foresight->$kind) > 6)
                        <li class="soft">and in {{ count($foresight->$kind) - 6 }} more directories</li>
                    @endif
            </ul>
        @endif
    @endforeach
    @if ($foresight->links !== [])
        <h3 class="small-head">Links in it</h3>
        <ul class="found-places">
            @foreach (array_slice($foresight->links, 0, 6, true) as $link => $target)
                <li><x-path :path="$link" /> <span class="soft">to {{ $target ?? 'somewhere' }}; the proof
                        tries whether it leads out</span></li>
            @endforeach
        </ul>
    @endif
    @if ($foresight->unseen > 0)
        <p class="soft">{{ Count::words($foresight->unseen, 'directory', 'directories') }} in it
            {{ Count::choose($foresight->unseen, 'was', 'were') }} not looked into; there may be more.</p>
    @endif
    @if ($warning !== null)
        <p class="word is-trouble">{{ $warning }}</p>
    @endif
    @if ($foresight->narrower !== [])
        <h3 class="small-head">Would less do?</h3>
        <ul class="narrower">
            @foreach ($foresight->narrower as $less)
                <li><button type="button" class="pick" data-pick="@exactly($less->directory)"
                        data-into="directory"><x-path :path="$less->directory" /></button> <span
                        class="soft">@words($less->sentence())</span></li>
            @endforeach
        </ul>
    @endif
@endif
