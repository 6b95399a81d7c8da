@use('App\Text\Amount')
@use('App\Models\Backup')
<div id="backups"
    @if ($taking) hx-get="/backups{{ $site ? '?site='.$site->id : '' }}" hx-trigger="every 1s" hx-swap="outerHTML"
    @endif>
    @if ($backups->isEmpty())
        <p class="calm">No backup yet.</p>
    @else
        <table class="facts-table is-roomy">
            <thead>
                <tr>
                    <th>Number</th>
                    @if ($site === null)
                        <th>Site</th>
                    @endif
                    <th>Taken</th>
                    <th>Why</th>
                    <th>Holds</th>
                    <th>From the server</th>
                    <th>Proof</th>
                    <th></th>
                </tr>
            </thead>
            <tbody>
                @foreach ($backups as $backup)
                    <tr>
                        <td>{{ $backup->id }}</td>
                        @if ($site === null)
                            <td class="whole">
                                <svg class="band" width="6" height="16" aria-hidden="true">
                                    <rect width="6" height="16" rx="2"
                                        fill="{{ $backup->site->account->client->colour }}" />
                                </svg>
                                <a href="/backups?site={{ $backup->site_id }}">{{ $backup->site->domain }}</a>
                            </td>
                        @endif
                        <td class="when">{{ $backup->created_at->format('j M Y H:i') }}</td>
                        <td class="when">
                            {{ $backup->why() }}{{ $backup->person ? ', '.$backup->person->shortName() : '' }}</td>
                        <td class="when">
                            @if ($backup->state === Backup::VERIFIED)
                                {{ Amount::files($backup->files) }}, {{ Amount::bytes($backup->bytes) }}
                            @endif
                        </td>
                        <td>
                            @if ($backup->state === Backup::VERIFIED)
                                {{ $backup->readings(underHeading: true) }}
                            @elseif ($backup->state === Backup::TAKING && $backup->progress !== null)
                                {{ number_format($backup->progress['entries']) }} seen,
                                {{ Amount::files($backup->progress['files']) }} read,
                                {{ Amount::bytes($backup->progress['bytes']) }}
                            @endif
                        </td>
                        <td>
                            @switch ($backup->state)
                                @case (Backup::VERIFIED)
                                    <x-tag tone="proven">copy read back</x-tag>
                                @break

                                @case (Backup::TAKING)
                                    <x-tag tone="later">being taken</x-tag>
                                @break

                                @case (Backup::QUESTION)
                                    <x-tag tone="soon">a question</x-tag> <span
                                        class="soft"><bdi>{{ $backup->trouble }}</bdi></span>
                                @break

                                @case (Backup::CALLED_OFF)
                                    <x-tag>cancelled</x-tag>
                                @break

                                @default
                                    <x-tag tone="now">failed</x-tag> <span
                                        class="soft"><bdi>{{ $backup->trouble }}</bdi></span>
                            @endswitch
                        </td>
                        <td class="acts">
                            @if ($backup->state === Backup::VERIFIED)
                                <x-action to="/backups/{{ $backup->id }}/bring-back"
                                    aria-label="Restore backup {{ $backup->id }} of {{ $backup->site->domain
                                        }}">Restore</x-action>
                            @elseif ($backup->state === Backup::QUESTION)
                                <x-action to="/backups/{{ $backup->id }}/accept">It is right, back up what is
                                    there</x-action>
                            @elseif ($backup->state === Backup::TAKING && $backup->called_off_at === null)
                                <x-action to="/backups/{{ $backup->id }}/call-off">Cancel</x-action>
                            @endif
                        </td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    @endif
</div>
