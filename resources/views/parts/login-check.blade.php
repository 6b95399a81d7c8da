@if ($objection !== null && $typed)
    <p class="is-now-text">{{ $objection }}</p>
@elseif ($typed)
<p class="soft">Signs in as <code class="strong">{{ $full }}</code></p>@else<p class="soft">The host makes
        <code>{{ $full }}</code> of it</p>
@endif
