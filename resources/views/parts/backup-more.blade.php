@leads("/backups/$backup->id/pin", 'POST')
    <details class="drop is-beside">
        <summary class="act" aria-label="More for backup {{ $backup->id }}">More</summary>
        <div class="drop-body">
            <x-action to="/backups/{{ $backup->id }}/rehearse"
                aria-label="Rehearse backup {{ $backup->id }}">Rehearse</x-action>
            @if ($backup->pinned_at === null)
                <form method="post" action="/backups/{{ $backup->id }}/pin" class="stack-form">@csrf
                    <label for="because-{{ $backup->id }}">Pin it: keep it whatever the rule says, because</label>
                    <input class="entry" id="because-{{ $backup->id }}" name="because" required maxlength="200">
                    <button class="act" data-once>Pin</button>
                </form>
            @else
                <x-action to="/backups/{{ $backup->id }}/unpin"
                    aria-label="Unpin backup {{ $backup->id }}">Unpin</x-action>
            @endif
        </div>
    </details>
@endleads
