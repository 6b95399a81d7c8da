@props(['jar', 'label'])
@php($level = $jar->level())
<a class="jar is-{{ $jar->tone }}{{ $jar->empty ? ' is-empty' : '' }}" href="/sites/{{ $jar->site->id }}"
    title="{{ $jar->site->domain }}: {{ $jar->words() }}">
    <svg viewBox="0 0 52 62" width="52" height="62" aria-hidden="true">
        @if ($level > 0)
            <rect class="fill" x="8" y="{{ 57 - $level }}" width="36" height="{{ $level }}"
                rx="2" />
        @endif
        @if ($jar->overdue)
            <path class="hatch" d="M9 24l12 33M15 17l14 40M24 17l14 40M33 17l10 30" />
        @endif
        <rect class="glass" x="8" y="16" width="36" height="42" rx="4" />
        @if ($jar->open)
            <rect class="lid" x="13" y="2" width="26" height="6" rx="1.5"
                transform="rotate(-16 26 5)" />
            <rect class="lid" x="12" y="9" width="28" height="6" rx="1.5" />
        @else
            <rect class="lid{{ $jar->proven && ! $jar->empty ? '' : ' is-hollow' }}" x="12" y="8" width="28"
                height="7" rx="1.5" />
        @endif
        <text x="26" y="41" text-anchor="middle">{{ $label }}</text>
    </svg>
    <span class="is-sr-only">{{ $jar->site->domain }}: {{ $jar->words() }}</span>
</a>
