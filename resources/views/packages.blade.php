@use('App\Packages\LibraryOrder')
@use('App\Text\Amount')
<x-page title="Packages" place="Packages">
    <div class="two">
        <section class="sheet">
            <h1>Packages
                <small>{{ $packages->isEmpty() ? '' : number_format($packages->total()).', '
                    .$library->order->label() }}</small>
            </h1>
            <p class="soft"><a href="/package-types">Package types</a> say how kinds of packages are recognised.</p>
            @if ($packages->isEmpty() && $library->words === '')
                <p class="calm">No package yet. Upload a zip, tar, tar.gz or tar.xz of a built site.</p>
            @else
                <form class="sieve" method="get" action="/packages"><label class="is-sr-only" for="q">Name, version
                        or file</label><input class="entry is-wide" id="q" name="q" type="search"
                        value="@exactly($library->words)" placeholder="Name, version, file" autocomplete="off"><label
                        class="is-sr-only" for="sort">Sorted</label><select class="entry" id="sort" name="sort">
                        @foreach (LibraryOrder::cases() as $order)
                            <option value="@exactly($order->value)" @selected($order === $library->order)>
                                {{ $order->label() }}</option>
                        @endforeach
                    </select>
                    <button class="act">Show</button>
                </form>
            @endif
            @if ($packages->isEmpty() && $library->words !== '')
                <p class="calm">No package fits.</p>
            @elseif ($packages->isNotEmpty())
                <form method="get" action="/packages/let-go" id="library">
                    <x-table caption="Packages" class="is-roomy">
                        <thead>
                            <tr>
                                @leads('/packages/let-go', 'POST')
                                    <th scope="col" class="tick"><input type="checkbox" data-all="packages"
                                            aria-label="All on this page"></th>
                                @endleads
                                <th scope="col">Package</th>
                                <th scope="col">Holds</th>
                                <th scope="col">Findings</th>
                                <th scope="col">Live on</th>
                                <th scope="col">Uploaded</th>
                            </tr>
                        </thead>
                        <tbody>
                            @foreach ($packages as $row)
                                <tr>
                                    @leads('/packages/let-go', 'POST')
                                        <td class="tick"><input type="checkbox" name="packages[]"
                                                value="@exactly($row->newest->id)"
                                                aria-label="{{ $row->newest->name }}"></td>
                                    @endleads
                                    <td><a class="strong"
                                            href="/packages/{{ $row->newest->id }}">{{ $row->newest->name }}</a>
                                        {{ $row->newest->version }}
                                        @if ($row->versions > 1)
                                            <div class="soft">{{ $row->versions }} versions</div>
                                        @endif
                                    </td>
                                    <td class="when">{{ Amount::files($row->newest->files) }},
                                        {{ Amount::bytes($row->newest->bytes) }}</td>
                                    <td data-label="findings">
                                        @if ($row->newest->stops)
                                            <x-tag tone="now">cannot go live</x-tag>
                                        @elseif ($row->newest->findingsInWords() !== '')
                                            {{ $row->newest->findingsInWords() }}
                                        @else
                                            <span class="soft">none</span>
                                        @endif
                                    </td>
                                    <td data-label="live on">
                                        @forelse (array_slice($row->live, 0, 3) as $at)
                                            <div><a href="/sites/{{ $at->site }}"><x-domain
                                                        :name="$at->domain" /></a>
                                                @if ($at->package < $row->newest->id)
                                                    <x-tag tone="soon">{{ $at->version ?? 'older' }}</x-tag>
                                                @endif
                                            </div>
                                        @empty
                                            <span class="soft">nowhere</span>
                                        @endforelse
                                        @if (count($row->live) > 3)
                                            <div class="soft">and {{ number_format(count($row->live) - 3) }} more,
                                                {{ count($row->behind()) }} behind</div>
                                        @endif
                                    </td>
                                    <td class="when" data-label="uploaded">
                                        {{ $row->newest->created_at->shown('j M Y') }}</td>
                                </tr>
                            @endforeach
                        </tbody>
                    </x-table>
                    @leads('/packages/let-go', 'POST')
                        <p class="row-acts"><button class="act">Let older versions go</button></p>
                    @endleads
                </form>
                <x-pages :of="$packages" what="packages" />
            @endif
        </section>
        @include('parts.upload', ['site' => null])
    </div>
</x-page>
