<details class="drop" data-act="upload">
    <summary class="act is-main">Upload files</summary>
    <form method="post" action="/sites/{{ $place->site->id }}/file-uploads" enctype="multipart/form-data"
        class="upload drop-body" data-busy data-into="@exactly($place->at)">
        @csrf
        <input type="hidden" name="site" value="@exactly($place->site->id)">
        <input type="hidden" name="at" value="@exactly($place->at)">
        <p class="soft">Files, folders, or what you downloaded to work on. They are compared with what is on the server;
            nothing is replaced before you have seen the plan.</p>
        <div class="choices-of-files">
            <label for="package">Files</label>
            <input class="entry" id="package" name="brought[]" type="file" multiple required>
            <div class="folder-choice">
                <label for="folder">or a folder</label>
                <input class="entry" id="folder" type="file" webkitdirectory>
                <p class="soft">or drop them anywhere on the list</p>
            </div>
            <button class="act is-main" data-once>Compare</button>
        </div>
        @include('parts.upload-progress')
    </form>
</details>
