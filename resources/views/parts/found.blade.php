@if ($words !== '' || $found !== [])
    <ul class="found" data-words="@exactly($words)">
        @forelse ($found as $row)
            <li><a
                    href="{{ $row['url'] }}"><span>{{ $row['kind'] }}</span><b>{{ $row['name'] }}</b><small>{{
                        $row['note'] }}</small></a>
                @isset($row['connect'])
                    <form method="post" action="{{ $row['connect'] }}" class="act-form">@csrf<button class="link"
                            aria-label="connect again to {{ $row['name'] }}, {{ $row['note'] }}">connect again</button>
                    </form>
                @endisset
            </li>
        @empty
            <li class="none">Nothing is called “{{ $words }}”.</li>
        @endforelse
    </ul>
@endif
