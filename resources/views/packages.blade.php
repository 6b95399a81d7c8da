@use('App\Text\Amount')
<x-page title="Packages" place="Packages">
    <div class="two">
        <section class="sheet">
            <h1>Packages
                <small>{{ $packages->isEmpty() ? '' : number_format($packages->total()).', the newest first' }}</small>
            </h1>
            @if ($packages->isEmpty())
                <p class="calm">No package yet. Upload a zip, tar, tar.gz or tar.xz of a built site.</p>
            @else
                <table class="facts-table is-roomy">
                    <thead>
                        <tr>
                            <th>Package</th>
                            <th>File</th>
                            <th>Holds</th>
                            <th>Findings</th>
                            <th>Deployed</th>
                            <th>Uploaded</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach ($packages as $package)
                            <tr>
                                <td><a class="strong" href="/packages/{{ $package->id }}">{{ $package->name }}</a>
                                    {{ $package->version }}</td>
                                <td><x-path class="soft" :path="$package->file_name" /></td>
                                <td class="when">{{ Amount::files($package->files) }},
                                    {{ Amount::bytes($package->bytes) }}</td>
                                <td data-label="findings">
                                    @if ($package->stops)
                                        <x-tag tone="now">cannot go live</x-tag>
                                    @elseif ($package->findingsInWords() !== '')
                                        {{ $package->findingsInWords() }}
                                    @else
                                        <span class="soft">none</span>
                                    @endif
                                </td>
                                <td data-label="deployed">{{ $package->timesDeployed() }}</td>
                                <td class="when" data-label="uploaded">
                                    {{ $package->created_at->shown('j M Y H:i') }}</td>
                            </tr>
                        @endforeach
                    </tbody>
                </table>
                <x-pages :of="$packages" what="packages" />
            @endif
        </section>
        @include('parts.upload', ['site' => null])
    </div>
</x-page>
