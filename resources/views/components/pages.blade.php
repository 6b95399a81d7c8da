@use('Illuminate\Contracts\Pagination\LengthAwarePaginator')
@props(['of', 'what'])
@if ($of->hasPages())
    <nav class="pages" aria-label="Pages">
        @if ($of->previousPageUrl())
            <a class="act" href="{{ $of->previousPageUrl() }}" rel="prev">Previous</a>
        @endif
        <span>{{ number_format($of->firstItem()) }} to {{ number_format($of->lastItem()) }}
            @if ($of instanceof LengthAwarePaginator)
                of {{ number_format($of->total()) }} {{ $what }}
            @endif
        </span>
        @if ($of->nextPageUrl())
            <a class="act" href="{{ $of->nextPageUrl() }}" rel="next">Next</a>
        @endif
    </nav>
@endif
