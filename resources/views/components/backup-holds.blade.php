@props(['backup'])
<span class="unbroken">{{ $backup->holds() }}</span>
@if ($backup->root !== null)
    <div class="soft">of <x-path :path="$backup->root" /></div>
@endif
@if ($backup->databasesHeld() !== '')
    <div class="soft">{{ $backup->databasesHeld() }}</div>
@endif
