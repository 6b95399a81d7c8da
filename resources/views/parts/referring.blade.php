<x-table caption="References">
    <thead>
        <tr>
            <th scope="col">{{ $head }}</th>
            <th scope="col" class="number">Times</th>
        </tr>
    </thead>
    <tbody>
        @forelse ($paths as $path => $times)
            <tr>
                <td><a href="{{ $references->to($references->open, $path) }}"
                        hx-get="{{ $references->to($references->open, $path) }}" hx-target="#references"
                        hx-swap="outerHTML"><x-path :path="$path" /></a></td>
                <td class="number" data-label="times">{{ $times }}</td>
            </tr>
        @empty
            <tr>
                <td class="soft" colspan="2">nothing in the package</td>
            </tr>
        @endforelse
        @foreach ($broken as $finding)
            <tr>
                <td colspan="2"><x-tag tone="now">broken</x-tag> line {{ $finding->line }}
                    @words($finding->message)</td>
            </tr>
        @endforeach
    </tbody>
</x-table>
