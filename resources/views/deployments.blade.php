@use('App\Deployments\DeploymentTable')
@use('App\Models\DeploymentState')
<x-page title="Deployments" place="Deployments">
    <section class="sheet">
        <header class="head">
            <h1>Deployments
                @if ($deployments->isNotEmpty())
                    <small>{{ number_format($deployments->total()) }}, the newest first</small>
                @endif
            </h1><x-action to="/deployments/new" method="GET" main>New deployment</x-action>
        </header>
        @if ($deployments->isEmpty() && ! $table->isFiltered())
            <p class="calm">Nothing was deployed yet. A deployment begins with a plan, which changes nothing.</p>
        @else
            <form class="sieve" method="get" action="/deployments"><label class="is-sr-only" for="q">Site, client or
                    package</label><input class="entry" id="q" name="q" type="search"
                    value="@exactly($table->words)" placeholder="Site, client, package" autocomplete="off"><label
                    class="is-sr-only" for="only">Only</label><select class="entry" id="only" name="only">
                    @foreach (DeploymentTable::ONLY as $value => $words)
                        <option value="@exactly($value)" @selected($value === $table->only)>{{ $words }}</option>
                    @endforeach
                </select><label class="is-sr-only" for="who">By</label><select class="entry" id="who" name="who">
                    <option value="">by whoever it was</option>
                    @foreach ($people as $person)
                        <option value="{{ $person->id }}" @selected($person->id === $table->who)>{{ $person->name }}
                        </option>
                    @endforeach
                </select>
                <label class="inline">from <input class="entry" type="date" name="since"
                        value="{{ $table->given('since') }}"></label>
                <label class="inline">to <input class="entry" type="date" name="until"
                        value="{{ $table->given('until') }}"></label>
                <button class="act">Show</button>
                @if ($table->isFiltered())
                    <a href="/deployments">Show all</a>
                @endif
            </form>
            @if ($deployments->isEmpty())
                <p class="calm">No deployment fits.</p>
            @else
                <form method="post" action="/deployments/discard" id="discard">@csrf</form>
                <x-table caption="Deployments" class="is-roomy">
                    <thead>
                        <tr>
                            <th scope="col">What</th>
                            <th scope="col">Site</th>
                            <th scope="col">Ended</th>
                            <th scope="col">How</th>
                            <th scope="col">Files</th>
                            <th scope="col">Took</th>
                            <th scope="col">Who</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach (DeploymentTable::folded($deployments) as $group)
                            @if (count($group) > 1)
                                <tr class="is-directory">
                                    <td colspan="7"><details>
                                            <summary>{{ count($group) }} uploads by hand on
                                                {{ $group[0]->when() }} and before, to
                                                <x-domain :name="$group[0]->site->domain" /></summary>
                                            <x-table caption="Uploads by hand">
                                                <tbody>
                                                    @foreach ($group as $run)
                                                        @include('parts.deployment-row')
                                                    @endforeach
                                                </tbody>
                                            </x-table>
                                        </details></td>
                                </tr>
                            @else
                                @include('parts.deployment-row', ['run' => $group[0]])
                            @endif
                        @endforeach
                    </tbody>
                </x-table>
                @if ($deployments->contains(static fn ($run): bool => $run->state === DeploymentState::Planned))
                    @leads('/deployments/discard', 'POST')
                        <p class="row-acts"><button class="act" form="discard" data-once>Discard the ticked
                                plans</button></p>
                    @endleads
                @endif
                <x-pages :of="$deployments" what="deployments" />
            @endif
        @endif
    </section>
</x-page>
