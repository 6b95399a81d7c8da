@use('App\Packages\TypeRow')
<x-page :title="$id === '' ? 'Add a package type' : 'Package type '.$id" place="Packages">
    <div class="two">
        <section class="sheet">
            <header class="head">
                <h1>{{ $id === '' ? 'Add a package type' : $id }}
                    <small>{{ TypeRow::originOf($isOwn, $isShipped) }}</small></h1>
                <a class="act is-quiet" href="/package-types">Back to the types</a>
            </header>
            <form method="post" action="/package-types" class="stack-form">
                @csrf
                @error('yaml')
                    <p class="word is-trouble" role="alert">{{ $message }}</p>
                @enderror
                <label for="yaml">Rules, as YAML</label>
                <textarea class="entry is-code" id="yaml" name="yaml" rows="28" spellcheck="false" required
                    autocomplete="off">{{ old('yaml', $yaml) }}</textarea>
                <div class="row-acts"><button class="act is-main" data-once>Save</button></div>
            </form>
            @if ($isOwn)
                <x-action to="/package-types/{{ $id }}/remove">{{ $isShipped ? 'Undo the changes, as it ships again'
                    : 'Remove this type' }}</x-action>
            @endif
        </section>
        <div class="stack">
            <section class="sheet" aria-labelledby="import">
                <h2 id="import">Import</h2>
                <form method="post" action="/package-types" enctype="multipart/form-data" class="stack-form">
                    @csrf
                    <label for="file">A YAML file of another agency</label>
                    <input class="entry" id="file" name="file" type="file" accept=".yaml,.yml" required>
                    <div class="row-acts"><button class="act" data-once>Import</button></div>
                </form>
            </section>
            <section class="sheet" aria-labelledby="help">
                <h2 id="help">What stands in it</h2>
                <dl class="pairs">
                    <dt>recognise</dt>
                    <dd>signs with weights; it is one from the weight <code>from</code>. <code>file</code> is a path,
                        <code>*</code> any part of a name, <code>**</code> any directories</dd>
                    <dt>goes</dt>
                    <dd><code>document_root</code>, <code>above_document_root</code>, <code>subfolder</code> or
                        <code>inside_system</code></dd>
                    <dt>keeps, never</dt>
                    <dd>what stays on the server, and what never leaves here</dd>
                    <dt>writable</dt>
                    <dd>what the web server has to write to, with its mode</dd>
                    <dt>proves</dt>
                    <dd>addresses that show afterwards that it works</dd>
                    <dt>needs</dt>
                    <dd>PHP, its extensions, bytes of space</dd>
                </dl>
            </section>
        </div>
    </div>
</x-page>
