<section class="sheet" aria-labelledby="upload">
    <h2 id="upload">Upload a package</h2>
    <p class="soft">A zip, tar, tar.gz or tar.xz. It is opened here and looked through; nothing goes to a server
        yet.</p>
    <form method="post" action="/packages" enctype="multipart/form-data" class="upload" data-busy>
        @csrf
        @if ($site !== null)
            <input type="hidden" name="site" value="@exactly($site->id)">
        @endif
        @error('package')
            <p class="word is-trouble" role="alert">{{ $message }}</p>
        @enderror
        <label for="package">Archive</label>
        <input class="entry" id="package" name="package" type="file"
            accept=".zip,.tar,.tar.gz,.tgz,.tar.xz,.txz" required>
        <button class="act is-main" data-once>Upload</button>
    </form>
</section>
