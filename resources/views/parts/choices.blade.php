<ul class="choices">
    @forelse ($choices as $choice)
        <li><a href="{{ $choice['url'] }}"><b>{{ $choice['name'] }}</b> <span
                    class="soft">{{ $choice['note'] }}</span></a></li>
    @empty
        <li class="soft">{{ $words === '' ? "There are no $what yet." : "No $what with “{$words}”." }}</li>
    @endforelse
    @if ($all !== null && $all > count($choices))
        <li class="soft">{{ number_format($all) }} {{ $what }} in all; type to find one</li>
    @endif
</ul>
