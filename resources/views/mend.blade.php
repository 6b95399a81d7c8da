@use('App\Text\Amount')
@use('App\Packages\MendPreview')
<x-page :title="'Mend '.$package->title()" place="Packages">
    <div class="stack">
        <section class="sheet">
            <header class="head">
                <h1>Mend {{ $package->title() }} <small>{{ $preview->inWords() ?: 'nothing to mend' }}</small></h1>
                <a class="act is-quiet" href="/packages/{{ $package->id }}">Back to the package</a>
            </header>
            @if ($preview->isEmpty())
                <p class="calm">There is nothing here that can be mended without changing more than that. Mend it where
                    it was built, and upload it again.</p>
            @else
                <p>Nothing is changed yet. This makes a package of its own, <b>{{ $package->name }} {{ $version }}</b>;
                    {{ $package->title() }} stays as it is. Every other byte stays as it was.</p>
                <form class="row-acts" method="post" action="/packages/{{ $package->id }}/mend" data-busy>@csrf
                    <input type="hidden" name="what" value="@exactly($choice->toString())">
                    <button class="act is-main" data-once>Make {{ $version }}</button>
                </form>
            @endif
            @if ($preview->plan->notDone !== [])
                <p class="word is-trouble">{{ count($preview->plan->notDone) }} cannot be written anew without
                    changing more than the name: character references or escapes stand in them. Mend these where they
                    were built.</p>
            @endif
        </section>
        @if ($preview->files !== [])
            <section class="sheet">
                <h2>Files</h2>
                <x-table caption="Files that change">
                    <thead>
                        <tr>
                            <th scope="col">In {{ $package->version ?? 'this one' }}</th>
                            <th scope="col">In {{ $version }}</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach ($preview->files as $change)
                            <tr>
                                <td><x-path :path="$change->path" /></td>
                                <td data-label="then">
                                    @if ($change->to === null)
                                        <x-tag tone="now">left out</x-tag>
                                    @else
                                        <x-path :path="$change->to" />
                                    @endif
                                </td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
            </section>
        @endif
        @if ($preview->within !== [])
            <section class="sheet">
                <h2>References <small>at these places only</small></h2>
                <x-table caption="References that change" class="differences">
                    <thead>
                        <tr>
                            <th scope="col">File and line</th>
                            <th scope="col">In {{ $package->version ?? 'this one' }}</th>
                            <th scope="col">In {{ $version }}</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach ($preview->within as $path => $changes)
                            @foreach ($changes as $change)
                                <tr>
                                    <td><x-path :path="$path" />
                                        <span class="soft unbroken">line {{ $change->line }}</span></td>
                                    <td data-label="now" class="difference"><del>{{ $change->before }}</del></td>
                                    <td data-label="then" class="difference"><ins>{{ $change->after }}</ins></td>
                                </tr>
                            @endforeach
                        @endforeach
                    </tbody>
                </x-table>
                @if ($preview->notShown > 0)
                    <p class="soft">and {{ number_format($preview->notShown) }} more</p>
                @endif
            </section>
        @endif
    </div>
</x-page>
