@use('App\Models\BackupState')
@use('App\Text\Amount')
@use('App\Models\Backup')
<div id="backups"
    @if ($taking) hx-get="{{ $backups->url($backups->currentPage()) }}" hx-trigger="every 1s" hx-swap="outerHTML"
    @endif>
    @if ($backups->isEmpty())
        <p class="calm">No backup yet. One is taken before every deployment, and whenever you say.</p>
    @else
        <x-table caption="Backups" class="is-roomy">
            <thead>
                <tr>
                    <th scope="col">Number</th>
                    @if ($site === null)
                        <th scope="col">Site</th>
                    @endif
                    <th scope="col">Taken</th>
                    <th scope="col">Why</th>
                    <th scope="col">Holds</th>
                    <th scope="col">From the server</th>
                    <th scope="col">Proof</th>
                    @if ($site !== null)
                        <th scope="col">Stays</th>
                    @endif
                    <th scope="col"></th>
                </tr>
            </thead>
            <tbody>
                @foreach ($backups as $backup)
                    <tr>
                        <td data-label="number">
                            @if ($backup->state === BackupState::Verified)
                                <x-link to="/backups/{{ $backup->id }}">{{ $backup->id }}</x-link>
                            @else
                                {{ $backup->id }}
                            @endif
                        </td>
                        @if ($site === null)
                            <td class="whole">
                                <svg class="band" width="6" height="16" aria-hidden="true">
                                    <rect width="6" height="16" rx="2"
                                        fill="{{ $backup->site->owner()->colour }}" />
                                </svg>
                                <a href="/sites/{{ $backup->site_id }}"><x-domain :name="$backup->site->domain" /></a>
                            </td>
                        @endif
                        <td class="when">{{ $backup->created_at->shown('j M Y H:i') }}</td>
                        <td class="when">
                            {{ $backup->why() }}{{ $backup->person ? ', '.$backup->person->shortName() : '' }}</td>
                        <td><x-backup-holds :backup="$backup" /></td>
                        <td>
                            @if ($backup->state === BackupState::Verified)
                                {{ $backup->readings(underHeading: true) }}
                            @elseif ($backup->state === BackupState::Taking && $backup->progress !== null)
                                {{ number_format($backup->progress['entries']) }} seen,
                                {{ Amount::files($backup->progress['files']) }} read,
                                {{ Amount::bytes($backup->progress['bytes']) }}
                            @endif
                        </td>
                        <td>
                            <x-tag :tone="$backup->state->tone()">{{ $backup->stands() }}</x-tag>
                            @if ($backup->rehearsed_at !== null)
                                @if (isset($backup->rehearsal['trouble']))
                                    <x-tag tone="now">rehearsal failed</x-tag>
                                    <span class="soft"><bdi>@words($backup->rehearsal['trouble'])</bdi></span>
                                @else
                                    <x-tag tone="proven">rehearsed</x-tag>
                                @endif
                            @endif
                            @if ($backup->lacks() !== '')
                                <span class="soft">@words($backup->lacks())</span>
                            @endif
                            @if ($backup->changed_meanwhile !== null)
                                <span class="soft">{{ Amount::files(count($backup->changed_meanwhile)) }} changed while
                                    read, read again</span>
                            @endif
                            @if (in_array($backup->state, [BackupState::Question, BackupState::Failed], true))
                                <span class="soft"><bdi>@words($backup->trouble)</bdi></span>
                            @endif
                        </td>
                        @if ($site !== null)
                            <td data-label="stays">{{ $fates[$backup->id] ?? '' }}
                                @if ($backup->pinned_because !== null)
                                    <span class="soft">{{ $backup->pinned_because }}</span>
                                @endif
                            </td>
                        @endif
                        <td class="acts">
                            @if ($backup->state === BackupState::Verified)
                                <x-action to="/backups/{{ $backup->id }}/restore"
                                    aria-label="Restore backup {{ $backup->id }} of {{ $backup->site->domain
                                        }}">Restore</x-action>
                                <x-action to="/backups/{{ $backup->id }}/zip" method="GET"
                                    aria-label="Download as zip: backup {{ $backup->id }} of {{ $backup->site->domain
                                        }}">Download as zip</x-action>
                                @if ($site !== null)
                                    @include('parts.backup-more')
                                @endif
                            @elseif ($backup->state === BackupState::Question)
                                <x-action to="/backups/{{ $backup->id }}/accept">It is right, back up what is
                                    there</x-action>
                            @elseif ($backup->state === BackupState::Taking && $backup->cancelled_at === null)
                                <x-action to="/backups/{{ $backup->id }}/cancel">Cancel</x-action>
                            @endif
                        </td>
                    </tr>
                @endforeach
            </tbody>
        </x-table>
        <x-pages :of="$backups" what="backups" />
    @endif
</div>
