@use('App\Text\Amount')
<x-page :title="$package->title()" place="Packages">
    <section class="sheet">
        <h1>{{ $package->title() }} <small>was let go on {{ $package->let_go_at->shown('j M Y') }}</small></h1>
        <p>It held {{ Amount::files($package->files) }}, {{ Amount::bytes($package->bytes) }}; they are no longer here.
            Upload <x-path :path="$package->file_name" /> again to have it back under this address.</p>
        @foreach ($versions->all->take(10) as $version)
            <p><a href="/packages/{{ $version->id }}">{{ $version->title() }}</a>
                <span class="soft">{{ $version->created_at->shown('j M Y') }}</span></p>
        @endforeach
    </section>
</x-page>
