@use('App\View\Amount')
<div id="backups" @if ($taking) hx-get="/backups{{ $site ? '?site='.$site->id : '' }}" hx-trigger="every 1s" hx-swap="outerHTML" @endif>
@if ($backups->isEmpty())<p class="calm">No backup yet.</p>@else
<table class="facts-table is-roomy">
    <thead><tr><th>Number</th>@if ($site === null)<th>Site</th>@endif<th>Taken</th><th>Why</th><th>Holds</th><th>Fetched for it</th><th>Proof</th><th></th></tr></thead>
    <tbody>@foreach ($backups as $backup)
        <tr><td>{{ $backup->id }}</td>
            @if ($site === null)<td><svg class="band" width="6" height="16" aria-hidden="true"><rect width="6" height="16" rx="2" fill="{{ $backup->site->account->client->colour }}"/></svg> <a href="/backups?site={{ $backup->site_id }}">{{ $backup->site->domain }}</a></td>@endif
            <td>{{ $backup->created_at->format('j M Y H:i') }}</td>
            <td>{{ ['on_demand' => 'asked for', 'before_deploy' => 'before a deployment', 'before_undo' => 'before going back', 'before_bring_back' => 'before bringing back'][$backup->reason] ?? $backup->reason }}{{ $backup->person ? ', '.$backup->person->shortName() : '' }}</td>
            <td>@if ($backup->state === 'verified'){{ Amount::files($backup->files) }}, {{ Amount::bytes($backup->bytes) }}@endif</td>
            <td>@if ($backup->state === 'verified'){{ $backup->fetched_files === 0 ? 'nothing, all was in the store' : Amount::files($backup->fetched_files).', '.Amount::bytes($backup->fetched_bytes) }}@endif</td>
            <td>@if ($backup->state === 'verified')<x-tag tone="proven">read back</x-tag>@elseif ($backup->state === 'taking')<x-tag tone="later">being taken</x-tag>@else<x-tag tone="now">failed</x-tag> <span class="soft">{{ $backup->trouble }}</span>@endif</td>
            <td class="acts">@if ($backup->state === 'verified')<x-action to="/backups/{{ $backup->id }}/bring-back" aria-label="Bring back backup {{ $backup->id }} of {{ $backup->site->domain }}">Bring back</x-action>@endif</td></tr>
    @endforeach</tbody>
</table>@endif
</div>
