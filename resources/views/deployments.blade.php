@use('App\Text\Amount')
<x-page title="Deployments" place="Deployments">
    <section class="sheet">
        <header class="head">
            <h1>Deployments
                @if ($deployments->isNotEmpty())
                    <small>{{ number_format($deployments->total()) }}, the newest first</small>
                @endif
            </h1><x-action to="/deployments/new" method="GET" main>New deployment</x-action>
        </header>
        @if ($deployments->isEmpty())
            <p class="calm">Nothing was deployed yet. A deployment begins with a plan, which changes nothing.</p>
        @else
            <table class="facts-table is-roomy">
                <thead>
                    <tr>
                        <th>What</th>
                        <th>Site</th>
                        <th>Ended</th>
                        <th>How</th>
                        <th>Files</th>
                        <th>Took</th>
                        <th>Who</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($deployments as $run)
                        <tr>
                            <td><a class="strong" href="/deployments/{{ $run->id }}">{{ $run->title() }}</a></td>
                            <td><svg class="band" width="6" height="16" aria-hidden="true">
                                    <rect width="6" height="16" rx="2"
                                        fill="{{ $run->site->account->client->colour }}" />
                                </svg> <a href="/sites/{{ $run->site_id }}"><x-domain :name="$run->site->domain"
                                    /></a></td>
                            <td class="when">{{ $run->when() }}</td>
                            <td>@include('parts.state', ['run' => $run])</td>
                            <td>
                                @if ($run->counts !== [])
                                    {{ $run->counts['added']['files'] }} added, {{ $run->counts['replaced']['files'] }}
                                    replaced{{ $run->counts['set_aside']['files'] > 0
                                        ? ', '.$run->counts['set_aside']['files'].' set aside' : '' }}
                                @endif
                            </td>
                            <td class="when" data-label="took">
                                {{ $run->seconds() === null ? '' : Amount::seconds($run->seconds()) }}</td>
                            <td>{{ $run->person?->shortName() ?? 'console' }}</td>
                        </tr>
                    @endforeach
                </tbody>
            </table>
            <x-pages :of="$deployments" what="deployments" />
        @endif
    </section>
</x-page>
