@use('App\Models\DeploymentState')
@use('App\Text\Amount')
<tr>
    <td>
        @if ($run->state === DeploymentState::Planned)
            @leads('/deployments/discard', 'POST')
                <input type="checkbox" form="discard" name="plans[]" value="{{ $run->id }}"
                    aria-label="Choose the plan {{ $run->title() }}">
            @endleads
        @endif
        <a class="strong" href="/deployments/{{ $run->id }}">{{ $run->title() }}</a>
    </td>
    <td><svg class="band" width="6" height="16" aria-hidden="true">
            <rect width="6" height="16" rx="2" fill="{{ $run->site->account->client->colour }}" />
        </svg> <a href="/sites/{{ $run->site_id }}"><x-domain :name="$run->site->domain" /></a></td>
    <td class="when">{{ $run->when() }}</td>
    <td>@include('parts.state', ['run' => $run])</td>
    <td @class(['soft' => $run->state !== DeploymentState::Proven])>
        @if ($run->counts !== [] && $run->state !== DeploymentState::Cancelled)
            {{ $run->counts['added']['files'] }} added, {{ $run->counts['replaced']['files'] }}
            replaced{{ $run->counts['set_aside']['files'] > 0
                ? ', '.$run->counts['set_aside']['files'].' set aside' : '' }}
        @endif
    </td>
    <td class="when" data-label="took">{{ $run->seconds() === null ? '' : Amount::seconds($run->seconds()) }}</td>
    <td class="when" data-label="by">{{ $run->person?->shortName() ?? 'console' }}</td>
</tr>
