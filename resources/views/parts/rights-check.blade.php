@use('App\Models\ErrandState')
@use('App\Text\Amount')
@use('Cellarium\Core\File\Rights')
@php($going = ! $errand->state->hasEnded())
@php($result = $errand->result ?? [])
<section class="sheet files" id="rights-check" aria-labelledby="rights"
    @if ($going) hx-get="/rights-checks/{{ $errand->id }}" hx-trigger="every 1s" hx-swap="outerHTML" @endif>
    <h1 id="rights">Permissions <small>of all that lies below {{ $site->document_root }}</small></h1>
    @if ($going)
        <p class="search-far" role="status">{{ $errand->started_at === null ? 'waits its turn'
            : 'being looked at, '.Amount::seconds($errand->started_at->diffInSeconds(now())) }}
            <x-action to="/errands/{{ $errand->id }}/cancel">Cancel</x-action></p>
    @elseif ($errand->state !== ErrandState::Done)
        <p class="word is-trouble" role="alert">The permissions are not known: not all of it could be looked at.
            @words($errand->words ?? '')</p>
    @elseif (($result['told'] ?? 0) === 0)
        <p class="word is-soon">The server tells the rights of none of {{ number_format($result['checked'] ?? 0) }}
            names, so nothing can be said of them.</p>
    @elseif ($wrong === [])
        <p class="calm">All {{ number_format($result['checked']) }} are as they should
            be{{ $result['systems'] === [] ? '' : ', for '.implode(', ', $result['systems']).' too' }}: nothing that
            everyone on the server may change, nothing that runs as somebody else, no passwords that everyone may
            read.</p>
    @else
        <p>{{ number_format(count($wrong)) }} of {{ number_format($result['checked']) }} are not as they should
            be{{ $result['systems'] === [] ? '. No system is known here that has to write anywhere'
                : ', by what '.implode(', ', $result['systems']).' wants' }}. Each would get the smallest change that
            mends it.</p>
        <form method="post" action="/rights-checks/{{ $errand->id }}">
            @csrf
            <x-table caption="Permissions to mend" kind="files-table" class="is-checked" data-rows>
                <thead>
                    <tr>
                        <th scope="col" class="tick"><input type="checkbox" data-all aria-label="choose all"></th>
                        <th scope="col" class="is-name">Where</th>
                        <th scope="col" class="is-rights">Now</th>
                        <th scope="col" class="is-rights">Would be</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach (array_slice($wrong, 0, 1000) as $one)
                        <tr>
                            <td class="tick"><input type="checkbox" name="names[]"
                                    value="@exactly($one->entry->path->toString())"
                                    @checked($one->fault->isSafelyMended())
                                    aria-label="choose {{ $one->entry->path }}"></td>
                            <td class="is-name"><x-path :path="$one->entry->path.($one->entry->isFile() ? '' : '/')" />
                                <p class="soft">{{ $one->fault->sentence() }}</p>
                                @unless ($one->fault->isSafelyMended())
                                    <p class="soft">Not ticked: where pages run as somebody else, the site itself
                                        would be shut out too.</p>
                                @endunless
                            </td>
                            <td class="is-rights" data-label="now">
                                <code>{{ Rights::digits($one->entry->mode ?? 0) }}</code></td>
                            <td class="is-rights" data-label="would be">
                                <code>{{ Rights::digits($one->wanted) }}</code></td>
                        </tr>
                    @endforeach
                </tbody>
            </x-table>
            @if (count($wrong) > 1000)
                <p class="soft">The first 1,000 are listed. Mend them, then check again.</p>
            @endif
            <div class="row-acts">
                @leads('/rights-checks/'.$errand->id, 'POST')
                    <button class="act is-main" data-once>Mend those that are ticked</button>
                @endleads
                <x-action :to="$place->url()" method="GET">To the files</x-action>
            </div>
        </form>
    @endif
</section>
