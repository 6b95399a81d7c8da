<ul class="choices">
    @forelse ($choices as $choice)
        <li><a href="{{ $choice['url'] }}"><b>{{ $choice['name'] }}</b> <span
                    class="soft">{{ $choice['note'] }}</span></a></li>
    @empty
        <li class="soft">@if ($words !== '')
                No {{ $what }} with “{{ $words }}”.
            @elseif ($what === 'sites')
                There is no site yet. <x-link to="/accounts/new">Add an account</x-link> with its sites first.
            @else
                There is no package yet. Upload one first.
            @endif
        </li>
    @endforelse
    @if ($all !== null && $all > count($choices))
        <li class="soft">{{ number_format($all) }} {{ $what }} in all; type to find one</li>
    @endif
</ul>
