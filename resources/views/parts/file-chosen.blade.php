@use('Cellarium\Core\Words\Count')
@use('App\Text\Amount')
<aside class="chosen" id="chosen" aria-live="polite">
    @if ($chosen === null)
        <section class="sheet"><p class="calm">Choose a file to see its address, its permissions and what it held
                before.</p>
        </section>
    @else
        @php($entry = $chosen->row->entry)
        <section class="sheet" aria-labelledby="chosen-name" data-chosen="@exactly($entry->name)">
            <h2 id="chosen-name"><x-path :path="$entry->name" /></h2>
            <p class="soft">{{ $chosen->facts() }}</p>
            @if ($entry->isFile() && $chosen->mayBeText())
                <x-action :to="$place->editUrl($chosen->row->path)" method="GET" main data-act="edit">Edit</x-action>
            @endif
            @if ($chosen->media() !== null)
                @include('parts.file-look')
            @endif
            @if ($chosen->row->rights() === null)
                <p class="soft">The server does not tell its permissions.</p>
            @else
                @if ($chosen->mend() !== null)
                    <p class="word is-trouble">{{ $chosen->row->rights()->warning() ?? $chosen->refused() }}
                        <b>{{ $chosen->mend() }}</b>
                        {{ $chosen->row->rights()->warning() === null ? 'is the smallest change that mends it.'
                            : 'is what a site mostly has.' }}</p>
                @elseif ($chosen->row->rights()->warning() !== null)
                    <p class="word is-soon">{{ $chosen->row->rights()->warning() }}</p>
                @endif
                <form method="post" action="{{ $place->owner() }}/file-changes" data-rights>
                    @csrf
                    <input type="hidden" name="do" value="set_modes">
                    <input type="hidden" name="at" value="@exactly($place->at)">
                    <input type="hidden" name="names[]" value="@exactly($entry->seenWord())">
                    <x-table caption="Permissions" kind="rights">
                        <thead>
                            <tr>
                                <td></td>
                                @foreach (\Cellarium\Core\File\Rights::WHAT as $what)
                                    <th scope="col">{{ $chosen->right($what) }}</th>
                                @endforeach
                            </tr>
                        </thead>
                        <tbody>
                            @foreach ($chosen->grid() as [$who, $rights])
                                <tr>
                                    <th scope="row">{{ $who }}</th>
                                    @foreach ($rights as [$what, $bit, $has])
                                        <td><input type="checkbox" data-bit="{{ $bit }}" @checked($has)
                                                @disabled(! $place->mayBeChanged())
                                                aria-label="{{ $who }}: {{ $what }}"></td>
                                    @endforeach
                                </tr>
                            @endforeach
                        </tbody>
                    </x-table>
                    <p class="word is-soon" data-for-everyone role="alert" hidden>With these, everyone who has an
                        account on this server may change it, whoever they are.</p>
                    <div class="row-acts">
                        <label class="is-sr-only" for="mode">Permissions as digits</label>
                        <input class="entry is-short" id="mode" data-digits inputmode="numeric" maxlength="4" required
                            name="{{ $entry->isDirectory() ? 'directories' : 'files' }}" pattern="[0-7]{3,4}"
                            value="{{ $chosen->mend() ?? $chosen->digits() }}" @readonly(! $place->mayBeChanged())>
                        @leads($place->owner().'/file-changes', 'POST')
                            <button class="act{{ $chosen->mend() === null ? '' : ' is-main' }}"
                                data-once>{{ $chosen->mend() === null ? 'Set' : "Mend to {$chosen->mend()}" }}</button>
                        @endleads
                    </div>
                </form>
            @endif
        </section>
        <section class="sheet" aria-label="Address and what was kept">
            <h3>Address</h3>
            @if ($chosen->address() === null)
                <p class="soft">No address leads to it.</p>
            @else
                <p><x-address :address="$chosen->address()" /></p>
                @if ($chosen->privateWords() !== null)
                    <p class="word is-kept">Nobody guesses this address. Whoever was given it can fetch what lies in the
                        folder, without a password and for as long as it has this name.</p>
                    @leads($place->owner().'/file-changes', 'POST')
                        <form method="post" action="{{ $place->owner() }}/file-changes" class="row-acts">
                            @csrf
                            <input type="hidden" name="at" value="@exactly($place->at)">
                            <input type="hidden" name="names[]" value="@exactly($entry->seenWord())">
                            <input type="hidden" name="called" value="@exactly($chosen->privateWords())">
                            <input type="hidden" name="private" value="1">
                            <button class="act" name="do" value="rename" data-once>Close it: new address</button>
                            <button class="act" name="do" value="set_aside" data-once>Close it: set aside</button>
                        </form>
                    @endleads
                @endif
                @if ($chosen->row->visitors() !== null)
                    <p>Visitors <b
                            class="{{ $chosen->row->visitors()->tone() }}">{{ $chosen->row->visitors()->words() }}</b>,
                        asked {{ Amount::ago($chosen->row->visitors()->at) }}.
                        @words($chosen->row->visitors()->more() ?? '')</p>
                @endif
                <form method="post" action="{{ $place->owner() }}/file-visitors" class="act-form">
                    @csrf
                    <input type="hidden" name="at" value="@exactly($place->at)">
                    <input type="hidden" name="names[]" value="@exactly($entry->seenWord())">
                    @leads($place->owner().'/file-visitors', 'POST')
                        <button class="act" data-once>Ask what visitors get</button>
                    @endleads
                </form>
            @endif
            @if ($chosen->unread !== [])
                <p class="word is-trouble">What
                    {{ Count::choose(count($chosen->unread), 'backup number', 'backups number') }}
                    {{ implode(', ', $chosen->unread) }} held of it is not known: the list of what lies in there
                    cannot be read. Look at the disk that backups are kept on.</p>
            @endif
            @if ($chosen->versions !== [])
                <h3>Kept versions</h3>
                <x-table caption="Kept versions" kind="versions">
                    @foreach ($chosen->versions as $version)
                        <tr>
                            <td>{{ $version->at->shown('j M Y H:i') }}, {{ Amount::bytes($version->size) }}<br>
                                <small>
                                    @leads($version->url)
                                        <a href="{{ $version->url }}">{{ $version->from }}</a>@else
                                        {{ $version->from }}@endleads{{ $version->who === null ? ''
                                        : ", $version->who" }}</small></td>
                            <td class="acts">
                                @if ($version->isNow)
                                    <small>as it is now</small>
                                @else
                                    @php($compare = $place->compareUrl($chosen->row->path, $version->sha256))
                                    @if ($chosen->mayBeText())
                                        @leads($compare)
                                            <a href="{{ $compare }}"
                                                aria-label="compare with that of {{ $version->at->shown('j M H:i') }}"
                                                >compare</a>
                                        @endleads
                                    @endif
                                    @leads($place->owner().'/file-changes', 'POST')
                                        <form method="post" action="{{ $place->owner() }}/file-changes">
                                            @csrf
                                            <input type="hidden" name="do" value="save">
                                            <input type="hidden" name="version" value="{{ $version->sha256 }}">
                                            <input type="hidden" name="at" value="@exactly($place->at)">
                                            <input type="hidden" name="names[]" value="@exactly($entry->seenWord())">
                                            <button class="link" data-once>restore</button>
                                        </form>
                                    @endleads
                                @endif
                            </td>
                        </tr>
                    @endforeach
                </x-table>
            @endif
            @leads($place->owner().'/file-changes', 'POST')
                <h3>Change</h3>
                <form method="post" action="{{ $place->owner() }}/file-changes" class="chosen-change">
                    @csrf
                    <input type="hidden" name="at" value="@exactly($place->at)">
                    <input type="hidden" name="names[]" value="@exactly($entry->seenWord())">
                    <x-field for="called" label="New name" class="row-acts">
                        <input class="entry" id="called" name="called" value="@exactly($entry->name)" maxlength="255"
                            autocomplete="off">
                        <button class="act" name="do" value="rename">Rename</button>
                    </x-field>
                    <x-field for="into" label="Folder" class="row-acts">
                        <input class="entry" id="into" name="folder" autocomplete="off" placeholder="/archive">
                        <button class="act" name="do" value="move">Move</button>
                        <button class="act" name="do" value="copy">Copy</button>
                    </x-field>
                    <button class="act" name="do" value="set_aside">Set aside</button>
                    <small>Held here for {{ config('cellarium.set_aside_days') }} days.</small>
                </form>
            @endleads
        </section>
    @endif
</aside>
