@if ($words !== '')
<ul class="found">
    @forelse ($found as $row)
        <li><a href="{{ $row['url'] }}"><span>{{ $row['kind'] }}</span><b>{{ $row['name'] }}</b><small>{{ $row['note'] }}</small></a></li>
    @empty
        <li class="none">Nothing is called “{{ $words }}”.</li>
    @endforelse
</ul>
@endif
