<x-page title="Package types" place="Packages">
    <section class="sheet">
        <header class="head">
            <h1>Package types <small>how kinds of packages are recognised, and where they go</small></h1>
            <div class="row-acts"><x-action to="/package-types/new" method="GET">Add a type</x-action>
                <a class="act is-quiet" href="/packages">Packages</a></div>
        </header>
        <x-table caption="Package types" class="is-roomy">
            <thead>
                <tr>
                    <th scope="col">Type</th>
                    <th scope="col">Recognised by</th>
                    <th scope="col">Goes</th>
                    <th scope="col">Needs</th>
                    <th scope="col" class="number">Packages</th>
                    <th scope="col"></th>
                </tr>
            </thead>
            <tbody>
                @foreach ($rows as $row)
                    <tr>
                        <td><b>{{ $row->type->label }}</b>
                            <div class="soft"><code>{{ $row->type->id }}</code>
                                {{ $row->origin() }}</div>
                        </td>
                        <td data-label="recognised by">{{ $row->recognisedBy() }}</td>
                        <td data-label="goes">{{ $row->goes() }}</td>
                        <td data-label="needs">
                            {{ $row->type->needs->isNothing() ? 'nothing' : $row->type->needs->inWords() }}</td>
                        <td class="number" data-label="packages">{{ number_format($row->packages) }}</td>
                        <td class="acts">
                            <x-action :to="'/package-types/'.$row->type->id.'/edit'" method="GET"
                                :aria-label="'Edit '.$row->type->label">Edit</x-action>
                            <a class="act is-quiet" href="/package-types/{{ $row->type->id }}.yaml"
                                aria-label="Export {{ $row->type->label }}">Export</a>
                        </td>
                    </tr>
                @endforeach
            </tbody>
        </x-table>
    </section>
</x-page>
