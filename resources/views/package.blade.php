@use('Cellarium\Core\Words\Count')
@use('App\Text\Amount')
@use('App\Text\Breakable')
<x-page :title="$package->title()" place="Packages">
    <div class="two">
        <div class="stack">
            <section class="sheet">
                <h1>{{ $package->name }} @if ($package->version)
                        <span class="version">{{ $package->version }}</span>
                    @endif <small>{{ $page->kindInWords() }}, {{ Amount::files($package->files) }},
                        {{ Amount::bytes($package->bytes) }}</small></h1>
                @if ($package->source !== null)
                    <p class="soft">Made here from <a href="/packages/{{ $package->mended_from }}"
                            >{{ $package->source->title() }}</a>, {{ count($package->mends ?? []) }} mended.</p>
                @endif
                <h2>Findings <small>{{ $package->findingsInWords() ?: 'nothing to look at' }}</small></h2>
                @foreach ($page->groups as $group)
                    @include('parts.finding-group')
                @endforeach
                @if ($page->notes !== [])
                    <details class="finding">
                        <summary>{{ 'Show '.Count::words($page->noteCount(), 'note') }}
                        </summary>
                        @foreach ($page->notes as $group)
                            @include('parts.finding-group')
                        @endforeach
                    </details>
                @endif
                @if ($page->safe > 1)
                    <p class="row-acts"><x-action :to="'/packages/'.$package->id.'/mend?what=all'" method="GET"
                            >Mend all {{ $page->safe }} that are safe</x-action></p>
                @endif
                <ol class="steps">
                    @if ($package->start_page)
                        <li class="is-ok"><span>{{ $package->start_page }} is the start page{{
                            str_contains($package->start_page, '/') ? '' : ' at the top' }}</span></li>
                    @endif
                    <li class="is-ok"><span>Safe to open: nothing leaves the directory, no links, nothing encrypted,
                            every entry read whole</span></li>
                    @if ($package->leadsRight())
                        <li class="is-ok"><span>Every reference within it leads where it says</span></li>
                    @endif
                </ol>
            </section>
            @include('parts.references')
            @if ($landing?->tree !== null)
                @include('parts.landing')
            @else
            <section class="sheet">
                <details>
                    <summary>All {{ Amount::files($package->files) }} of the package</summary>
                    <x-table caption="All files of the package" class="tree">
                        <thead>
                            <tr>
                                <th scope="col">Directory or file</th>
                                <th scope="col">Holds</th>
                            </tr>
                        </thead>
                        <tbody>
                            @foreach (array_slice($tree, 0, 400) as $row)
                                <tr>
                                    <td class="depth-{{ min(8, $row['depth']) }}">
                                        <code>{{ $row['path'] }}{{ $row['directory'] ? '/' : '' }}</code></td>
                                    <td>{{ $row['directory'] ? Amount::files($row['files']).', '
                                        : '' }}{{ Amount::bytes($row['bytes']) }}
                                    </td>
                                </tr>
                            @endforeach
                        </tbody>
                    </x-table>
                    @if (count($tree) > 400)
                        <p class="soft">and {{ count($tree) - 400 }} more</p>
                    @endif
                </details>
            </section>
            @endif
        </div>
        <div class="stack">
            <section class="sheet" aria-labelledby="deploy-it">
                <h2 id="deploy-it">Deploy it</h2>
                @if ($package->stops)
                    <p class="calm">This package cannot go live as it is; the findings say why.</p>
                    @if ($page->safe > 0)
                        <p class="row-acts"><x-action :to="'/packages/'.$package->id.'/mend?what=all'" method="GET"
                                main>Mend what is safe</x-action></p>
                    @endif
                @else
                    @if ($page->better !== null)
                        @include('parts.wrong-site', ['better' => $page->better])
                    @endif
                    @php($likely = $site ?? $deployed)
                    @if ($likely !== null)
                        <p class="row-acts"><a class="act is-main"
                                href="/deployments/new?{{ http_build_query(['package' => $package->id, 'site' =>
                                    $likely->id]) }}">To
                                {{ $likely->domain }}</a></p>
                    @endif
                    @foreach ($suiting as $suits)
                        @if ($likely === null || ! $suits->site->is($likely))
                            <p><a class="strong"
                                    href="/deployments/new?{{ http_build_query(['package' => $package->id,
                                        'site' => $suits->site->id]) }}"><x-domain :name="$suits->site->domain" /></a>
                                <span class="soft">{{ $suits->why }}</span></p>
                        @endif
                    @endforeach
                    @foreach ($page->fits as $fit)
                        @if ($likely === null || ! $fit->site->is($likely))
                            <p><a class="strong"
                                    href="/deployments/new?{{ http_build_query(['package' => $package->id,
                                        'site' => $fit->site->id]) }}"><x-domain :name="$fit->site->domain" /></a>
                                <span class="soft">fits: {{ $fit->fit->inWords() }}</span></p>
                        @endif
                    @endforeach
                    <x-chooser what="sites" :query="['package' => $package->id]"
                            :label="$likely === null ? 'To which client or domain' : 'To another client or domain'" />
                @endif
            </section>
            <section class="sheet">
                <h2>As it would land
                    <small>{{ $page->landsWhere() }}</small></h2>
                @if ($landing?->problem !== null)
                    <p class="word is-trouble"><bdi>@words($landing->problem)</bdi></p>
                @elseif ($landing !== null && $landing->seenAt === null)
                    <p class="calm">Nobody has looked at what lies on {{ $site->domain }} yet, so this is the package
                        alone. The plan looks first.</p>
                @elseif ($landing !== null)
                    <p class="soft">With what lay there {{ $landing->seenAt->shown('j M Y H:i') }}; the plan looks
                        again.</p>
                @endif
                @php($answers = $landing === null ? $page->served : $landing->served)
                @if ($answers === null)
                @elseif ($landing === null && $page->goesInside() !== null)
                    <p class="calm">It goes into {{ $page->goesInside() }}. Choose the site, and it is shown here.</p>
                @else
                <x-table caption="Addresses that would be served">
                    <tbody>
                        @foreach ($answers->first() as $served)
                            @include('parts.served')
                        @endforeach
                    </tbody>
                </x-table>
                @endif
                @foreach ($page->ofOthers as $named)
                    <p><x-tag tone="soon">another client</x-tag> It names <x-domain :name="$named->site->domain" /> of
                        {{ $named->site->account->client->name }},
                        {{ Count::choose($named->times, 'once', $named->times.' times') }}.</p>
                @endforeach
                @if ($answers !== null && $answers->others() !== [])
                    <details>
                        <summary>{{ count($answers->others()) }} more addresses</summary>
                        <x-table caption="More addresses">
                            <tbody>
                                @foreach ($answers->others() as $served)
                                    @include('parts.served')
                                @endforeach
                            </tbody>
                        </x-table>
                        @if ($answers->notShown() > 0)
                            <p class="soft">and {{ number_format($answers->notShown()) }} more</p>
                        @endif
                    </details>
                @endif
            </section>
            <section class="sheet">
                <h2>Versions
                    <small>{{ $versions->all->count() > 1 ? 'each compares with this one' : '' }}</small></h2>
                <x-table caption="Versions">
                    <tbody>
                        @foreach ($versions->all as $version)
                            <tr>
                                <td><a href="/packages/{{ $version->id }}"
                                        @if ($version->is($package)) aria-current="true"
                                        @endif>{{ $version->version ?? $version->file_name }}</a>
                                    <div class="soft">{{ $version->created_at->shown('j M Y') }}</div>
                                </td>
                                <td data-label="live on">
                                    @foreach (array_slice($versions->runs->live($version->id), 0, 3) as $at)
                                        <div><a href="/sites/{{ $at->site }}"><x-domain :name="$at->domain" /></a></div>
                                    @endforeach
                                    @if (count($versions->runs->live($version->id)) > 3)
                                        <div class="soft">and
                                            {{ number_format(count($versions->runs->live($version->id)) - 3) }} more
                                        </div>
                                    @endif
                                    @if ($versions->runs->live($version->id) === [])
                                        <span class="soft">{{ $versions->runs->wayBack($version->id) === [] ? 'nowhere'
                                            : 'the way back' }}</span>
                                    @endif
                                </td>
                                <td>
                                    @if (! $version->is($package))
                                        <a href="/packages/{{ $package->id }}/compare/{{ $version->id }}">compare</a>
                                    @endif
                                </td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
                @if ($versions->notShown > 0)
                    <p class="soft">and {{ number_format($versions->notShown) }} older ones</p>
                @endif
                @if ($installed === [] && $versions->behind() !== [])
                    <p><x-tag tone="soon">{{ count($versions->behind()) }} behind</x-tag> an older version is live
                        there.</p>
                @endif
                <p class="row-acts"><x-action
                        :to="'/packages/let-go?this=1&packages[]='.$package->id" method="GET">Let this version
                        go</x-action></p>
            </section>
            @if ($installed !== [])
                @include('parts.installed-at')
            @endif
            <section class="sheet">
                <h2>What it is</h2>
                @if ($page->choices() !== [])
                    <p class="word is-trouble" role="alert">Several types fit equally well. Say which one it is.</p>
                @elseif ($page->kind() !== null)
                    <p><b>{{ $page->kind()->label }}</b>, by these signs:
                        {{ implode('; ', $package->type_evidence ?? []) }}.</p>
                    @if (! $page->kind()->needs->isNothing())
                        <p>Needs {{ $page->kind()->needs->inWords() }}.</p>
                    @endif
                @else
                    <p>No type fits it; it lands as it is.</p>
                @endif
                @leads('/packages/'.$package->id.'/type', 'POST')
                    <details @if ($page->choices() !== []) open @endif>
                        <summary>It is something else</summary>
                        <form method="post" action="/packages/{{ $package->id }}/type" class="stack-form">
                            @csrf
                            <label for="type">Type</label>
                            <select class="entry" id="type" name="type">
                                @foreach ($page->choices() ?: $page->allKinds() as $type)
                                    <option value="@exactly($type->id)" @selected($type->id === $package->type)>
                                        {{ $type->label }}</option>
                                @endforeach
                            </select>
                            <div class="row-acts"><button class="act" data-once>Save</button></div>
                        </form>
                    </details>
                @endleads
                @leads('/packages/'.$package->id.'/name', 'POST')
                    <details @if ($errors->isNotEmpty()) open @endif>
                        <summary>Name and version</summary>
                        <form method="post" action="/packages/{{ $package->id }}/name" class="stack-form">
                            @csrf
                            @foreach ($errors->all() as $message)
                                <p class="word is-trouble" role="alert">{{ $message }}</p>
                            @endforeach
                            <label for="name">Name <span class="soft">that its versions share</span></label>
                            <input class="entry" id="name" name="name" required maxlength="100"
                                value="@exactly(old('name', $package->name))" autocomplete="off"
                                @readonly($page->kind()?->name !== null)>
                            @if ($page->kind()?->name !== null)
                                <p class="soft">It gives itself this name, and goes where that says.</p>
                            @endif
                            <label for="version">Version</label>
                            <input class="entry" id="version" name="version" maxlength="40"
                                value="@exactly(old('version', $package->version))" autocomplete="off">
                            <div class="row-acts"><button class="act" data-once>Save</button></div>
                        </form>
                    </details>
                @endleads
                @if ($page->staysHere > 0)
                    <p>{{ Amount::files($page->staysHere) }} of it never
                        {{ Count::choose($page->staysHere, 'leaves', 'leave') }}, by the rules of that type:
                        {{ $page->neverLeaves() }}.</p>
                @endif
                @if ($package->wrapper !== null)
                    <p>All lay inside <x-path :path="$package->wrapper" />; that is lifted.</p>
                @endif
                <p class="soft">File <x-path :path="$package->file_name" />,
                    {{ $package->packed_bytes === null ? 'mended here'
                        : Amount::bytes($package->packed_bytes).' packed' }}</p>
                <p class="soft">SHA-256
                    <code class="hash breakable">{{ Breakable::hash($package->sha256) }}</code></p>
            </section>
        </div>
    </div>
</x-page>
