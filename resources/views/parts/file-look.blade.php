@php($media = $chosen->media())
@php($name = $chosen->row->entry->name)
<figure class="look" data-look="{{ $media->value }}" data-from="{{ $chosen->lookUrl() }}">
    @if ($chosen->isShownAtOnce())
        <img src="{{ $chosen->lookUrl() }}" alt="{{ $name }}">
    @elseif ($media->kind() === 'audio')
        <audio controls preload="none" src="{{ $chosen->lookUrl() }}" aria-label="{{ $name }}"></audio>
    @elseif ($media->kind() === 'video')
        <video controls preload="none" src="{{ $chosen->lookUrl() }}" aria-label="{{ $name }}"></video>
    @else
        <button type="button" class="act" data-show>Look at it,
            {{ \App\Text\Amount::bytes($chosen->row->entry->size) }}</button>
    @endif
    <figcaption class="soft" data-told role="status"></figcaption>
</figure>
