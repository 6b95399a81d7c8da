@use('Cellarium\Core\Words\Count')
@use('App\Files\FileSecrets')
@use('App\Text\Amount')
@use('App\Text\When')
@php($going = ! $errand->state->hasEnded())
<section class="sheet files" id="files" aria-labelledby="lines-found"
    @if ($going) hx-get="/file-searches/{{ $errand->id }}" hx-trigger="every 1s" hx-swap="outerHTML" @endif>
    <h1 id="lines-found">{{ number_format(count($findings->found)) }}{{ $findings->isCut ? ' and more' : '' }} found
        <small>below {{ $place->at }}</small></h1>
    <p class="search-far" role="status">
        @if ($going)
            <b>{{ $errand->started_at === null ? 'waits its turn' : 'still looking' }}</b>,
        @elseif ($errand->state === \App\Models\ErrandState::Done && ! $findings->isCut && $findings->unread === [])
            Looked through all of it:
        @else
            Not all of it was looked through:
        @endif
        {{ Count::words($findings->directories, 'folder') }},
        {{ number_format($findings->names) }} names{{ $sought->text === '' ? ''
            : ', '.Amount::files($findings->read).' read' }}{{ $findings->tooLarge === 0 ? ''
            : ', '.Amount::files($findings->tooLarge).' larger than '.Amount::bytes($sought->mostText)
            .' left out' }}{{ $errand->started_at === null ? ''
            : ', '.Amount::seconds($errand->started_at->diffInSeconds($going ? now() : $errand->updated_at)) }}
        @if ($going)
            <x-action to="/errands/{{ $errand->id }}/cancel">Cancel</x-action>
        @endif
    </p>
    @if ($errand->state === \App\Models\ErrandState::Cancelled)
        <p class="word is-soon">It was broken off. What had been found until then is below.</p>
    @elseif ($errand->state === \App\Models\ErrandState::Failed)
        <p class="word is-trouble" role="alert">It stopped half way. @words($errand->words ?? '')</p>
    @elseif ($findings->isCut)
        <p class="word is-soon">More than {{ number_format(\Cellarium\Core\File\FileMatches::MOST) }} fit, so the search
            stopped there. Look for something narrower, or in a folder further down.</p>
    @endif
    @if ($findings->unread !== [])
        <details class="word is-trouble">
            <summary>{{ count($findings->unread) }} could not be looked at, so something may be in there</summary>
            <ul>
                @foreach (array_slice($findings->unread, 0, 100) as [$path, $why])
                    <li><x-path :path="$path" />: @words($why)</li>
                @endforeach
            </ul>
        </details>
    @endif
    @if ($findings->found === [])
        <p class="calm">{{ $going ? 'Nothing yet.' : 'Nothing that was looked at is like that.' }}</p>
    @else
        <x-table caption="Files that were found" kind="files-table" class="is-found">
            <thead>
                <tr>
                    <th scope="col" class="is-name">Where</th>
                    <th scope="col" class="is-size">Size</th>
                    <th scope="col" class="is-changed">Changed</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($findings->found as $found)
                    @php($isFolder = $found->entry->kind === \Cellarium\Core\Manifest\EntryKind::Directory)
                    <tr>
                        <td class="is-name">
                            <a href="{{ $isFolder ? $place->url($found->path)
                                : $place->url($found->path->parent(), ['chosen' => $found->path->name()]) }}"><x-path
                                    :path="$place->at->toward($found->path)?->toString().($isFolder ? '/' : '')" /></a>
                            @if ($found->lines !== [] && FileSecrets::areLinesHidden($place->account->id, $found))
                                <p class="soft">Passwords may stand in it; what it says is shown to those who may see
                                    them.</p>
                            @else
                                @foreach ($found->lines as [$number, $line])
                                    @php([$before, $hit, $behind] = $sought->parted($line))
                                    <p class="hit"><a href="{{ $place->editUrl($found->path) }}#L{{ $number }}"
                                            aria-label="line {{ $number }} of {{ $found->path->name() }}"
                                            >{{ $number }}</a>
                                        <code>{{ $before }}<mark>{{ $hit }}</mark>{{ $behind }}</code></p>
                                @endforeach
                                @if ($found->count > count($found->lines))
                                    <p class="soft">and {{ $found->count - count($found->lines) }} more lines</p>
                                @endif
                            @endif
                        </td>
                        <td class="is-size">{{ $isFolder ? '' : Amount::bytes($found->entry->size) }}</td>
                        <td class="is-changed">{{ $found->entry->modified === null ? ''
                            : When::shown(new DateTimeImmutable("@{$found->entry->modified}"), 'j M Y H:i') }}</td>
                    </tr>
                @endforeach
            </tbody>
        </x-table>
    @endif
</section>
