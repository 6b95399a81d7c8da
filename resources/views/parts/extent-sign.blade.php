<svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
    @if ($column === 'part')
        <rect class="all" x="2" y="2" width="14" height="14" rx="3" />
        <rect class="on" x="2" y="9" width="14" height="7" rx="3" />
    @elseif ($column === 'none')
        <circle class="all" cx="9" cy="9" r="5" />
    @else
        <rect class="on" x="2" y="2" width="14" height="14" rx="3" />
    @endif
</svg>
