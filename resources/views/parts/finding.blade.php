@if ($finding->line !== null)
    <x-path :path="$finding->path" /> <span class="soft unbroken">line {{ $finding->line }}</span>
@endif
@words($finding->message)
