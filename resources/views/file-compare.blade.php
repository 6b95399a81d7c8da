@php($version = $compared['version'])
<x-page :title="'Compare '.$name" place="Accounts" wide>
    <x-slot:where>@include('parts.files-where')</x-slot:where>
    <section class="sheet" aria-labelledby="compare">
        <h1 id="compare" class="breakable">{{ $name }} <small>now, and on {{ $version->at->shown('j M Y H:i') }},
                {{ $version->from }}{{ $version->who === null ? '' : ", $version->who" }}</small></h1>
        @if ($compared['isSame'])
            <p class="calm">It is the same to the byte as it is on the server now.</p>
        @elseif ($compared['texts'] === null)
            <p class="word is-soon">The texts are too long to be shown side by side.</p>
        @elseif ($compared['texts']->differOnlyInLineEnds)
            <p class="word is-soon">The lines are the same; how they end, or how they are written, differs.</p>
        @else
            @include('parts.side-by-side', ['texts' => $compared['texts'], 'heads' => ['on the server now', 'kept']])
        @endif
        <div class="row-acts">
            @unless ($compared['isSame'])
                @leads($place->owner().'/file-changes', 'POST')
                    <form method="post" action="{{ $place->owner() }}/file-changes" class="act-form">
                        @csrf
                        <input type="hidden" name="do" value="save">
                        <input type="hidden" name="version" value="{{ $version->sha256 }}">
                        <input type="hidden" name="at" value="@exactly($place->at)">
                        <input type="hidden" name="names[]" value="@exactly($compared['seen'])">
                        <button class="act is-main" data-once>Restore this version</button>
                    </form>
                @endleads
            @endunless
            <x-action :to="$place->url(null, ['chosen' => $name])" method="GET">To the file</x-action>
        </div>
    </section>
</x-page>
