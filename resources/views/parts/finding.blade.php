@if ($finding->isAboutAFile())
    <x-path :path="$finding->path" />
    @if ($finding->line !== null)
        <span class="soft unbroken">line {{ $finding->line }}</span>
    @endif
@endif
@words($finding->message)
@isset($place)
    <span class="difference"><del>{{ $place->before }}</del> <ins>{{ $place->after }}</ins></span>
@endisset
