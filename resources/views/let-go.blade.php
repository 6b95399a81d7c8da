@use('Cellarium\Core\Words\Count')
@use('App\Text\Amount')
<x-page title="Let versions go" place="Packages">
    <section class="sheet">
        <header class="head">
            <h1>Let versions go <small>{{ $letGo->going()->count() }} of {{ $letGo->packages->count() }}</small></h1>
            <a class="act is-quiet" href="/packages">Back to the packages</a>
        </header>
        @if ($letGo->packages->isEmpty())
            <p class="calm">There is no older version of what was chosen.</p>
        @else
            <p>What is live, a way back or in a plan stays.
                @if ($letGo->going()->isNotEmpty())
                    The others go with their files, {{ Amount::bytes((int) $letGo->going()->sum('bytes')) }} at the
                    most; the deployments there were stay in the record. To have one again, upload it again.
                @endif
            </p>
            <x-table caption="Versions to let go of" class="is-roomy">
                <thead>
                    <tr>
                        <th scope="col">Version</th>
                        <th scope="col">Holds</th>
                        <th scope="col">Uploaded</th>
                        <th scope="col">Becomes</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($letGo->packages as $package)
                        <tr>
                            <td><a href="/packages/{{ $package->id }}">{{ $package->title() }}</a></td>
                            <td class="when">{{ Amount::files($package->files) }},
                                {{ Amount::bytes($package->bytes) }}</td>
                            <td class="when">{{ $package->created_at->shown('j M Y') }}</td>
                            <td data-label="becomes">
                                @if ($letGo->why($package) === '')
                                    <x-tag tone="now">goes</x-tag>
                                @else
                                    <x-tag tone="proven">stays</x-tag> {{ $letGo->why($package) }}
                                @endif
                            </td>
                        </tr>
                    @endforeach
                </tbody>
            </x-table>
            @if ($letGo->going()->isNotEmpty())
                <form class="row-acts" method="post" action="/packages/let-go" data-busy>@csrf
                    @foreach ($letGo->going() as $package)
                        <input type="hidden" name="packages[]" value="@exactly($package->id)">
                    @endforeach
                    <button class="act is-main" data-once>{{ Count::choose($letGo->going()->count(), 'Let it go',
                        'Let '.$letGo->going()->count().' go') }}</button>
                </form>
            @endif
        @endif
    </section>
</x-page>
