@use('App\Text\Amount')
<x-page :title="'Backup '.$view->backup->id" place="Backups">
    <x-slot:where><x-site-where :site="$view->backup->site" here="backup {{ $view->backup->id }}"><x-slot:facts><a
        href="/backups?site={{ $view->backup->site_id }}">its backups</a></x-slot:facts></x-site-where></x-slot:where>
    <section class="sheet is-above" aria-labelledby="backup">
        <h1 id="backup">Backup of {{ $view->backup->verified_at?->shown('j M Y H:i') }}
            <small>{{ $view->backup->holds() }}, {{ $view->backup->why() }}</small></h1>
        <p class="trail"><a href="/backups/{{ $view->backup->id }}">all</a>
            @foreach ($view->trail as $path => $name)
                <i>›</i> <a href="/backups/{{ $view->backup->id }}?in={{ rawurlencode($path) }}"><x-path
                    :path="$name" /></a>
            @endforeach
        </p>
        <form method="post" action="/backups/{{ $view->backup->id }}/restore">
            @csrf
            @if ($view->rows === [])
                <p class="calm">{{ $view->in === '' ? 'It holds nothing.' : 'There is no such folder in it.' }}</p>
            @else
                <x-table caption="Files in the backup">
                    <thead>
                        <tr>
                            <th scope="col" class="tick"></th>
                            <th scope="col">Name</th>
                            <th scope="col">Holds</th>
                            <th scope="col">Time on the server</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach ($view->rows as $row)
                            <tr>
                                <td><input type="checkbox" name="paths[]" value="{{ $row['path'] }}"
                                    aria-label="{{ $row['name'] }}"></td>
                                <td>
                                    @if ($row['isFolder'])
                                        <a href="/backups/{{ $view->backup->id }}?in={{ rawurlencode($row['path'])
                                            }}"><x-path :path="$row['name'].'/'" /></a>
                                    @else
                                        <x-path :path="$row['name']" />
                                    @endif
                                </td>
                                <td data-label="holds">{{ $row['holds'] }}</td>
                                <td class="when" data-label="time">{{ $row['modified'] }}</td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
                @if ($view->left > 0)
                    <p class="soft">and {{ number_format($view->left) }} more in this folder; choose the folder itself
                        to have them too.</p>
                @endif
            @endif
            <p class="soft">Nothing chosen is all of it. What is restored goes through a plan: what is there now is
                shown beside it and backed up first.</p>
            <div class="row-acts">
                @leads("/backups/{$view->backup->id}/restore", 'POST')
                    @if ($view->others->isNotEmpty())
                        <label class="soft" for="to">to</label>
                        <select class="entry is-choice" id="to" name="to">
                            <option value="">{{ $view->backup->site->domain }}</option>
                            @foreach ($view->others as $other)
                                <option value="{{ $other->id }}">{{ $other->domain }}</option>
                            @endforeach
                        </select>
                    @endif
                    <button class="act is-main" data-once>Restore</button>
                @endleads
                @leads("/backups/{$view->backup->id}/zip")
                    <button class="act" formaction="/backups/{{ $view->backup->id }}/zip">Download as zip</button>
                @endleads
            </div>
        </form>
    </section>
    @if ($view->in === '' && $view->backup->databasesHeld() !== '')
        <section class="sheet" aria-labelledby="databases">
            <h2 id="databases">Databases <small>of the same moment</small></h2>
            @if ($view->backup->databases === null)
                <p>{{ ucfirst($view->backup->databasesHeld()) }}.</p>
            @else
                <x-table caption="Databases in the backup">
                    <tbody>
                        @foreach ($view->backup->databases as $database)
                            <tr>
                                <td><code class="breakable">{{ $database['name'] }}</code></td>
                                <td>{{ Amount::bytes($database['bytes']) }} of statements</td>
                                <td>
                                    @leads("/backups/{$view->backup->id}/restore-database", 'POST')
                                        <form method="post" class="act-form"
                                            action="/backups/{{ $view->backup->id }}/restore-database">@csrf
                                            <input type="hidden" name="database" value="@exactly($database['name'])">
                                            <button class="act" data-once>Restore this database</button>
                                        </form>
                                    @endleads
                                </td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
                <p class="soft">What was ordered or written in it since is gone then. The site is backed up first, with
                    what the database holds now; restoring files, or undoing, never touches a database.</p>
            @endif
        </section>
    @endif
</x-page>
