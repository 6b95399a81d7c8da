<x-page :title="'What refers to what in '.$package->title()" place="Packages">
    <p class="trail"><a href="/packages/{{ $package->id }}">{{ $package->title() }}</a></p>
    @include('parts.references')
</x-page>
