@use('App\Packages\CompareView')
@use('App\Text\Amount')
<x-page :title="$compare->before->title().' and '.$compare->after->title()" place="Packages">
    <div class="stack">
        <section class="sheet">
            <header class="head">
                <h1>{{ $compare->before->title() }} → {{ $compare->after->title() }}
                    <small>{{ $compare->inWords() }}</small></h1>
                <div class="row-acts"><a class="act is-quiet"
                        href="/packages/{{ $compare->before->id }}/compare/{{ $compare->after->id }}">The other way</a>
                    <a class="act is-quiet" href="/packages/{{ $compare->after->id }}">Back to the package</a></div>
            </header>
            @if ($compare->difference->files === [])
                <p class="calm">Every file is the same in both.</p>
            @else
                <x-table caption="Files that differ">
                    <thead>
                        <tr>
                            <th scope="col">File</th>
                            <th scope="col">What became of it</th>
                            <th scope="col" class="number">Before</th>
                            <th scope="col" class="number">After</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach (array_slice($compare->difference->files, 0, CompareView::MOST) as $file)
                            <tr>
                                <td><a href="{{ $compare->url($file->path()) }}#text"><x-path
                                            :path="$file->path()" /></a></td>
                                <td data-label="became"><x-tag
                                        :tone="CompareView::tone($file->change)">{{ $file->change->value }}</x-tag>
                                    @if ($file->before !== null && (string) $file->before->path !== $file->path())
                                        from <x-path :path="(string) $file->before->path" />
                                    @endif
                                </td>
                                <td class="number" data-label="before">
                                    {{ $file->before === null ? '' : Amount::bytes($file->before->size) }}</td>
                                <td class="number" data-label="after">
                                    {{ $file->after === null ? '' : Amount::bytes($file->after->size) }}</td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
                @if (count($compare->difference->files) > CompareView::MOST)
                    <p class="soft">and {{ number_format(count($compare->difference->files) - CompareView::MOST) }} more
                    </p>
                @endif
            @endif
        </section>
        @if ($compare->chosen() !== null)
            @php($parts = $compare->parts($compare->chosen()))
            <section class="sheet" id="text">
                <h2><x-path :path="$compare->chosen()->path()" /></h2>
                @if ($parts === null)
                    <p class="calm">It is no text, or too much of it to be set side by side.</p>
                @else
                    <div class="scroll" tabindex="0" role="group" aria-label="Both texts side by side">
                        <x-table caption="Both texts side by side" kind="side-by-side">
                            <thead class="is-sr-only">
                                <tr>
                                    <th scope="col">Line before</th>
                                    <th scope="col">Before</th>
                                    <th scope="col">Line after</th>
                                    <th scope="col">After</th>
                                </tr>
                            </thead>
                            @foreach ($parts as $part)
                                <tbody>
                                    @foreach ($part as $row)
                                        <tr @class(['is-changed' => $row->isChanged])>
                                            <td class="line">{{ $row->beforeLine }}</td>
                                            <td @class(['was' => $row->isChanged && $row->beforeLine !== null])>
                                                <code>{{ $row->before }}</code></td>
                                            <td class="line">{{ $row->afterLine }}</td>
                                            <td @class(['is' => $row->isChanged && $row->afterLine !== null])>
                                                <code>{{ $row->after }}</code></td>
                                        </tr>
                                    @endforeach
                                </tbody>
                            @endforeach
                        </x-table>
                    </div>
                @endif
            </section>
        @endif
    </div>
</x-page>
