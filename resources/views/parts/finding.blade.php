@if ($finding->isAboutAFile())
    <x-path :path="$finding->path" />
    @if ($finding->line !== null)
        <span class="soft unbroken">line {{ $finding->line }}</span>
    @endif
@endif
@words($finding->message)
