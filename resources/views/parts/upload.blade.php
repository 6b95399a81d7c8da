<section class="sheet" aria-labelledby="upload">
    <h2 id="upload">Upload a package</h2>
    <p class="soft">A zip, tar, tar.gz or tar.xz, or the folder of a built site. It is opened here and looked through;
        nothing goes to a server yet{{ $site === null ? '' : ', and the next step is its deployment here' }}.</p>
    <form method="post" action="/packages" enctype="multipart/form-data" class="upload" data-busy>
        @csrf
        @if ($site !== null)
            <input type="hidden" name="site" value="@exactly($site->id)">
        @endif
        @error('package')
            <p class="word is-trouble" role="alert">{{ $message }}</p>
        @enderror
        <div class="choices-of-files">
            <label for="package">Archive</label>
            <input class="entry" id="package" name="package" type="file"
                accept=".zip,.tar,.tar.gz,.tgz,.tar.xz,.txz" required>
            <div class="folder-choice">
                <label for="folder">or a folder</label>
                <input class="entry" id="folder" type="file" webkitdirectory>
                <p class="soft">or drop one here</p>
            </div>
            <button class="act is-main" data-once>Upload</button>
        </div>
        @include('parts.upload-progress')
    </form>
</section>
@once
    <script src="/vendor/tus-js-client-4.3.1.min.js" defer></script>
    <x-script name="upload" />
@endonce
