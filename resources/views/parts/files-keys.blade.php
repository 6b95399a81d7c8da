<dialog class="keys sheet" data-keys aria-labelledby="keys">
    <h2 id="keys">Keys</h2>
    <dl class="pairs">
        @foreach ([
            '↑ ↓ Home End' => 'from name to name',
            'letters' => 'to the name that begins with them',
            'Enter' => 'open',
            '→' => 'facts of it, beside the list',
            '← Backspace' => 'one folder up',
            'Space' => 'tick, to work on several',
            'F2' => 'new name for the chosen one',
            'F3' => 'edit the chosen one',
            'F4' => 'permissions of the chosen one',
            'F6' => 'move or copy those that are ticked',
            'F7' => 'new folder',
            'F8' => 'permissions of those that are ticked',
            'F9' => 'what visitors get of those that are ticked',
            'F10' => 'download those that are ticked',
            '*' => 'find below this folder, also in texts',
            '!' => 'check the permissions of the whole site',
            'Insert' => 'upload files',
            'Delete' => 'set aside those that are ticked',
            '.' => 'hidden files',
            '?' => 'this list',
        ] as $key => $does)
            <dt><kbd>{{ $key }}</kbd></dt>
            <dd>{{ $does }}</dd>
        @endforeach
    </dl>
    <button type="button" class="act" data-close-keys>Close</button>
</dialog>
