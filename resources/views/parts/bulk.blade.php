@use('Cellarium\Core\Words\Count')
@use('App\Models\BulkChangeState')
@use('App\Models\BulkChange')
@php($does = collect($change->items)->where('does', true))
@php($done = $does->filter(fn($item) => $item['result'] !== null))
@php($bad = $done->filter(fn($item) => ! $item['result']['ok']))
<section class="sheet" id="bulk" aria-labelledby="bulk-title"
    @if ($change->state === BulkChangeState::Going) hx-get="/bulk/{{ $change->id }}/live" hx-trigger="every 1s"
    hx-swap="outerHTML" @endif>
    <h1 id="bulk-title">{{ Count::words($does->count(), 'FTP user') }}: {{ $title }}
        <small>{{ match ($change->state) {BulkChangeState::Draft =>
            'what would be done; nothing has been changed yet',BulkChangeState::Going =>
                $done->count().' of '.$does->count().' done',default => $bad->isEmpty() ? 'done, each with its proof'
                    : $bad->count().' of '.$does->count().' did not come about'} }}</small>
    </h1>
    @if ($change->state !== BulkChangeState::Draft)
        <x-progress :percent="$does->isEmpty() ? 100 : round(100 * $done->count() / $does->count())" />
    @endif
    <x-table caption="FTP users that are changed">
        <thead>
            <tr>
                <th scope="col">FTP user</th>
                <th scope="col">Client</th>
                <th scope="col">{{ $change->state === BulkChangeState::Draft ? 'Would be' : 'What became of it' }}</th>
                <th scope="col"></th>
            </tr>
        </thead>
        <tbody>
            @foreach ($change->items as $item)
                <tr class="{{ $item['does'] ? '' : 'soft' }}">
                    <td><a href="/ftp-users/{{ $item['user'] }}"><x-path :path="$item['login']" /></a></td>
                    <td>{{ $item['client'] }}</td>
                    <td>
                        @if ($item['result'] === null)
                            {{ $item['words'] }}@else{{ $item['result']['words'] }}
                        @endif
                    </td>
                    <td class="whole">
                        @if (! $item['does'])
                            <x-tag>left alone</x-tag>
                        @elseif ($item['result'] === null)
                            <x-tag
                                tone="kept">{{ $change->state === BulkChangeState::Going ? 'to come'
                                    : 'planned' }}</x-tag>
                        @elseif ($item['result']['ok'])
                            <x-tag tone="proven">done</x-tag>
                            @if (isset($handOver[$item['user']]))
                                <a class="act" href="/ftp-users/{{ $item['user'] }}#hand-over">Hand over</a>
                        @endif @else<x-tag tone="now">failed</x-tag>
                        @endif
                    </td>
                </tr>
            @endforeach
        </tbody>
    </x-table>
    <div class="row-acts">
        @if ($change->state === BulkChangeState::Draft && $does->isNotEmpty())
            <x-action to="/bulk/{{ $change->id }}/start"
                main>{{ $change->kind->verb() }}
                {{ Count::choose($does->count(), 'this one', "these {$does->count()}") }}</x-action>
        @endif
        <x-action to="/ftp-users" method="GET">Back to the list</x-action>
    </div>
</section>
