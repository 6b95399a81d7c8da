@use('App\Models\RemovableKind')
@use('App\Removal\RemovalImpact')
@use('App\Removal\Removal')
<x-page title="Removed" place="Accounts">
    <section class="sheet" aria-labelledby="removed">
        <h1 id="removed">Removed <small>in the last {{ Removal::DAYS }} days</small></h1>
        @if (collect($groups)->every->isEmpty())
            <p class="calm">Nothing was removed in the last {{ Removal::DAYS }} days.</p>
        @else
            <x-table caption="Removed">
                <thead>
                    <tr>
                        <th scope="col">What</th>
                        <th scope="col">Removed</th>
                        <th scope="col">Can be undone until</th>
                        <th scope="col"></th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($groups as $kind => $subjects)
                        @foreach ($subjects as $subject)
                            <tr>
                                <td><a href="/removals/{{ $kind }}/{{ $subject->id }}"><x-domain
                                            :name="RemovalImpact::name($subject)" /></a></td>
                                <td class="when">{{ $subject->removed_at->shown('j M Y H:i') }}</td>
                                <td class="when">
                                    {{ $subject->removed_at->addDays(Removal::DAYS)->shown('j M Y H:i') }}</td>
                                <td class="acts"><x-action to="/removals/{{ $kind }}/{{ $subject->id }}/undo"
                                        aria-label="Undo the removal of {{ RemovalImpact::name($subject)
                                            }}">Undo</x-action>
                                </td>
                            </tr>
                        @endforeach
                    @endforeach
                </tbody>
            </x-table>
        @endif
    </section>
</x-page>
