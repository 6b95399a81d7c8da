@leads($place->owner().'/file-changes', 'POST')
<div class="files-with" data-with>
    <span class="soft" data-count>Tick files to work on several at once.</span>
    <button class="act" formaction="{{ $place->owner() }}/file-visitors" data-act="visitors" data-needs>What visitors
        get</button>
    <details class="drop is-up" data-act="zip" data-needs>
        <summary class="act">Download</summary>
        <div class="drop-body">
            <button class="act is-main" formaction="{{ $place->owner() }}/file-downloads">Download as zip</button>
            <button class="act" formaction="{{ $place->owner() }}/file-downloads" name="do" value="work_on"
                aria-describedby="work-on-note">Download to work on</button>
            <small id="work-on-note">That one remembers what it holds. Upload it again, or its folder, whenever you are
                done: only what you changed goes up, and what others changed meanwhile is a question.</small>
        </div>
    </details>
    <details class="drop is-up" data-act="move" data-needs>
        <summary class="act">Move or copy</summary>
        <div class="drop-body">
            @php($others = $place->otherSites())
            @if ($others->isNotEmpty())
                <label for="to-site">Site</label>
                <select class="entry" id="to-site" name="to_site">
                    <option value="">here</option>
                    @foreach ($others as $other)
                        <option value="{{ $other->id }}">{{ $other->domain }}</option>
                    @endforeach
                </select>
            @endif
            <label for="to-folder">Folder</label>
            <input class="entry" id="to-folder" name="folder" placeholder="/archive"
                aria-describedby="to-folder-note" autocomplete="off">
            <small id="to-folder-note">With a slash in front, from {{ $place->base }}; without one, from here. At
                another site from where its files begin, and left empty its document root; you see the plan
                first.</small>
            <div class="row-acts">
                <button class="act is-main" name="do" value="move">Move</button>
                <button class="act" name="do" value="copy">Copy</button>
            </div>
        </div>
    </details>
    <details class="drop is-up" data-act="rights" data-needs>
        <summary class="act">Permissions</summary>
        <div class="drop-body">
            <label for="files-mode">Files</label>
            <input class="entry is-short" id="files-mode" name="files" inputmode="numeric" maxlength="4"
                pattern="[0-7]{3,4}" placeholder="644">
            <label for="folders-mode">Folders</label>
            <input class="entry is-short" id="folders-mode" name="directories" inputmode="numeric" maxlength="4"
                pattern="[0-7]{3,4}" placeholder="755">
            <label class="check"><input type="checkbox" name="below" value="1"> and all that lies below; it is counted
                first</label>
            <p class="word is-soon" data-for-everyone role="alert" hidden>With these, everyone who has an account on
                this server may change them, whoever they are.</p>
            <button class="act is-main" name="do" value="set_modes">Set</button>
        </div>
    </details>
    <button class="act" name="do" value="set_aside" data-needs data-act="aside">Set aside</button>
</div>
@endleads
