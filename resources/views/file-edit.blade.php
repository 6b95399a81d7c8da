@use('Cellarium\Core\Words\Count')
@use('App\Text\Amount')
@php($name = $draft->path()->name())
<x-page :title="'Edit '.$name" place="Accounts" wide>
    <x-slot:where>@include('parts.files-where')</x-slot:where>
    <header class="head">
        <h1 class="breakable">{{ $name }} <small>{{ $base->label() }}</small></h1>
        <span class="soft" data-draft-state aria-live="polite">{{ $draft->text === null ? 'as on the server'
            : 'draft, kept encrypted here, '.Amount::ago($draft->typed_at ?? $draft->updated_at) }}</span>
    </header>
    @if ($trouble !== null)
        <p class="word is-trouble" role="alert">The file could not be read anew. @words($trouble) Your draft is shown as
            it was kept.</p>
    @endif
    <div class="word is-soon" role="status" data-others @if ($others === []) hidden @endif>
        @foreach ($others as $other)
            <p>{{ $other }}</p>
        @endforeach
    </div>
    @if ($merged !== null)
        <section class="sheet" aria-labelledby="merged">
            <h2 id="merged">Somebody changed it meanwhile</h2>
            <p>
                @if ($merged['clashes'] === null)
                    It is too long to be put together by itself. Below stands your text; compare it with what is on the
                    server before you save.
                @elseif ($merged['clashes'] === [])
                    You changed other places. Both changes stand in the text below; nothing was saved yet.
                @else
                    Both of you changed {{ Count::choose(count($merged['clashes']), 'the same place',
                        count($merged['clashes']).' places') }}. There your text stands below, at line
                    {{ implode(', ', array_column($merged['clashes'], 0)) }}; everything else is put together. Nothing
                    was saved yet.
                @endif
            </p>
            @if ($merged['sides'] !== null)
                @include('parts.side-by-side', [
                    'texts' => $merged['sides'],
                    'heads' => ['when you opened it', 'on the server now', 'yours'],
                ])
            @endif
        </section>
    @endif
    <form method="post" action="/file-drafts/{{ $draft->id }}" class="editing" data-editing="{{ $draft->id }}"
        data-extension="{{ strtolower(pathinfo($name, PATHINFO_EXTENSION)) }}">
        @csrf
        <input type="hidden" name="files" value="{{ $files }}">
        <label class="is-sr-only" for="content">Text of {{ $name }}</label>
        <textarea class="textarea" id="content" name="content" rows="24" spellcheck="false"
            wrap="off">{{ "\n" }}@exactly($draft->text ?? $base->edited())</textarea>
        <div class="row-acts">
            <button class="act is-main" name="do" value="review">Look at the difference, then save</button>
            <button class="act" type="button" data-find hidden>Find and replace</button>
            @if ($draft->text !== null)
                <button class="act" name="do" value="open" data-let-go>Let the draft go</button>
            @endif
            <x-action :to="$place->url(null, ['chosen' => $name])" method="GET">To the folder</x-action>
        </div>
    </form>
    <x-slot:scripts>
        <script src="/vendor/editor.js?v={{ filemtime(public_path('vendor/editor.js')) }}" defer></script>
        <script src="/js/edit.js?v={{ filemtime(public_path('js/edit.js')) }}" defer></script>
    </x-slot:scripts>
</x-page>
