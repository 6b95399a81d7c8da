<x-page :title="'Find in '.($place->at->name() ?: '/')" place="Accounts" wide>
    <x-slot:where>@include('parts.files-where')</x-slot:where>
    <div class="files-two is-search">
        @include('parts.file-search')
        <aside class="chosen"><section class="sheet" aria-labelledby="search-again">
            <h2 id="search-again">Look for</h2>
            @include('parts.file-search-form')
        </section></aside>
    </div>
</x-page>
