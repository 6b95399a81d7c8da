@use('App\Text\Amount')
<x-table caption="Set aside">
    <thead>
        <tr>
            <th scope="col">File</th>
            <th scope="col">Size</th>
            <th scope="col">Taken out</th>
            <th scope="col">By</th>
            <th scope="col">Held until</th>
            <th scope="col"></th>
        </tr>
    </thead>
    <tbody>
        @foreach ($files as $file)
            <tr>
                <td><x-path :path="$file->path" /></td>
                <td data-label="size">{{ Amount::bytes((int) $file->bytes) }}</td>
                <td class="when" data-label="taken out">{{ $file->set_aside_at->shown('j M Y H:i') }}</td>
                <td data-label="by">
                    @if ($file->deployment !== null)
                        <x-link to="/deployments/{{ $file->deployment_id }}">{{ $file->deployment->title() }}</x-link>
                    @elseif ($file->change !== null)
                        <x-link to="/file-changes/{{ $file->change_id }}">{{ $file->change->title }}</x-link>
                    @endif
                </td>
                <td class="when" data-label="held until">{{ $file->held_until->shown('j M Y') }}</td>
                <td class="acts"><x-action to="/set-aside/{{ $file->id }}/restore">Restore</x-action></td>
            </tr>
        @endforeach
    </tbody>
</x-table>
