@if ($objection !== null && $typed)
    <p class="is-now-text">{{ $objection }}</p>
@elseif ($typed)
<p class="soft">Signs in as <x-path class="strong" :path="$full" /></p>@else<p class="soft">The host makes
        <x-path :path="$full" /> of it</p>
@endif
