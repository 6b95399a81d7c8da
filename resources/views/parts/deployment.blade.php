@use('App\Text\Amount')
@use('App\Packages\FileTree')
@use('Cellarium\Core\Plan\Change')
@php
    $addresses = $deployment->site->addresses();
    $root = $deployment->site->root();
    $live = in_array($deployment->state, ['queued', 'waiting', 'running', 'unfinished'], true);
    $sends = $counts['added']['files'] + $counts['replaced']['files'];
    $touches = $sends + $counts['set_aside']['files'];
    $progress = $deployment->progress;
    $done = ! $live && $deployment->state !== 'planned';
@endphp
<div id="run"
    @if ($live) hx-get="/deployments/{{ $deployment->id }}/live" hx-trigger="every 1s" hx-swap="outerHTML" @endif>
    <ol class="track" aria-label="Stations">
        @foreach ($stations as $station)
            <li class="is-{{ $station['state'] }}"><svg viewBox="0 0 22 24" width="22" height="24" aria-hidden="true">
                    <path d="M2 23V11a9 9 0 0 1 18 0v12z" />
                </svg><b>{{ $station['name'] }}</b> <span>{{ $station['note'] }}</span><span
                    class="is-sr-only">{{ ['done' => 'done', 'here' => 'here now', 'open' => 'not yet', 'failed' =>
                        'failed'][$station['state']] }}</span>
            </li>
        @endforeach
    </ol>
    @if ($deployment->trouble)
        <p class="word is-trouble" role="alert"><bdi>{{ $deployment->trouble }}</bdi></p>
    @endif
    @if ($deployment->unproven)
        <section class="sheet" aria-labelledby="unproven">
            <h2 id="unproven">Put back, not proven <small>{{ count($deployment->unproven) }} that did not show what
                    they held before</small></h2>
            <ul class="columns">
                @foreach (array_slice($deployment->unproven, 0, 60) as $name)
                    <li><code>{{ $name }}</code></li>
                @endforeach
            </ul>
            @if (count($deployment->unproven) > 60)
                <p class="soft">and {{ count($deployment->unproven) - 60 }} more</p>
            @endif
        </section>
    @endif
    @if ($deployment->state === 'unfinished')
        <p class="row-acts"><x-action to="/deployments/{{ $deployment->id }}/again" main>Try again</x-action></p>
    @endif
    <div class="two">
        <section class="sheet" aria-labelledby="change">
            <h1 id="change">{{ $done ? 'What changed' : 'What will change' }}
                @foreach (Change::cases() as $change)
                    @if ($counts[$change->value]['files'] > 0)
                        <x-tag :tone="FileTree::tone($change)">{{ number_format($counts[$change->value]['files']) }}
                            {{ $change->label() }}@if ($change === Change::Add || $change === Change::Replace)
                                · {{ Amount::bytes($counts[$change->value]['bytes']) }}
                            @endif
                        </x-tag>
                    @endif
                @endforeach
            </h1>
            @php($all = max(1, array_sum(array_column($counts, 'files'))))
            @php($at = 0)
            <svg class="shares" viewBox="0 0 1000 20" preserveAspectRatio="none" aria-hidden="true">
                @foreach ([Change::Add, Change::Replace, Change::SetAside, Change::Keep, Change::Same] as $change)
                    @php($part = (1000 * $counts[$change->value]['files']) / $all)
                    <rect class="is-{{ FileTree::tone($change) }}" x="{{ round($at, 2) }}"
                        width="{{ round(max(0, $part - 2), 2) }}" height="20" />@php($at += $part)
                @endforeach
            </svg>
            <table class="facts-table tree plan">
                <thead>
                    <tr>
                        <th>Directory or file</th>
                        <th>{{ $deployment->kind === 'deploy' ? 'In the package' : 'In the backup' }}</th>
                        <th>{{ $done ? 'On the server before' : 'On the server' }}</th>
                        <th>Afterwards</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($rows as $row)
                        @php($item = $row['item'])
                        <tr class="{{ $row['directory'] ? 'is-directory' : '' }}">
                            <td class="depth-{{ min(8, $row['depth']) }}">
                                <code>{{ $row['path'] }}{{ $row['directory'] ? '/'
                                    : '' }}</code>@php($seen = $addresses->of($root->join(\Cellarium\Core\Path\RelativePath::fromString($row['path']))))
                                @if ($seen !== null)
                                    <button type="button" class="link on-hover" data-copy="@exactly($seen)"
                                        aria-label="copy address of {{ $row['path'] }}">copy address</button>
                                @endif
                            </td>
                            @if ($row['directory'])
                                <td>{{ $row['target'][0] === 0 ? '—' : Amount::files($row['target'][0]) }}</td>
                                <td>{{ $row['live'][0] === 0 ? '—' : Amount::files($row['live'][0]) }}</td>
                                <td>
                                    @foreach ($row['changes'] as $label => $count)
                                        <span class="sum">{{ $count }} {{ $label }}</span>
                                    @endforeach
                                </td>
                            @else
                                <td>{{ $item->target === null ? '—'
                                    : Amount::bytes($item->target->size) }}@if ($item->target?->modified)
                                        <span class="soft">{{ gmdate('j M H:i', $item->target->modified) }}</span>
                                    @endif
                                </td>
                                <td>{{ $item->live === null ? '—'
                                    : Amount::bytes($item->live->size) }}@if ($item->live?->modified)
                                        <span class="soft">{{ gmdate('j M H:i', $item->live->modified) }}</span>
                                    @endif
                                </td>
                                <td><x-tag
                                        :tone="FileTree::tone($item->change)">{{ $item->change === Change::SetAside
                                            ? 'set aside '.config('cellarium.set_aside_days').' days'
                                                : $item->change->label() }}{{ in_array($item, $waves['start'], true)
                                                    ? ', last of all' : '' }}</x-tag>
                                    <span class="soft">{{ $item->why->sentence() }}</span></td>
                            @endif
                        </tr>
                    @endforeach
                </tbody>
            </table>
            @if ($hidden > 0)
                <p class="soft">{{ number_format($hidden) }} more rows, mostly files that stay as they are, are
                    counted above and not shown.</p>
            @endif
        </section>
        <div class="stack">
            @if ($live)
                <section class="sheet" aria-labelledby="now" aria-live="polite">
                    <h2 id="now">Now
                        <small>{{ match (true) {$deployment->state === 'waiting' => 'waiting',$deployment->state ===
                            'queued' => 'about to start',default => str_replace('_', ' ', $deployment->stage
                                ?? 'starting')} }}</small>
                    </h2>
                    @if ($deployment->state === 'waiting')
                        <p>Another run on this account is going
                            on{{ $deployment->waitsFor ? ': ' : '.' }}@if ($deployment->waitsFor)
                                <a href="/deployments/{{ $deployment->waitsFor->id }}">{{
                                    $deployment->waitsFor->title() }}
                                    to {{ $deployment->waitsFor->site->domain }}</a>. This one starts when it has
                                ended.
                            @endif
                        </p>
                    @endif
                    @if ($progress !== null && isset($progress['files']))
                        @if ($progress['share'] !== null)
                            <svg class="meter is-wide" viewBox="0 0 300 10" preserveAspectRatio="none" role="img"
                                aria-label="{{ round($progress['share'] * 100) }} percent">
                                <rect class="all" width="300" height="10" rx="3" />
                                <rect class="part" width="{{ round(300 * $progress['share'], 1) }}" height="10"
                                    rx="3" />
                            </svg>
                        @endif
                        <dl class="pairs">
                            @if ($progress['files'] > 0)
                                <dt>Files</dt>
                                <dd>{{ $progress['files_done'] }} of {{ $progress['files'] }}</dd>
                            @endif
                            @if ($progress['bytes'] > 0)
                                <dt>Bytes</dt>
                                <dd>{{ Amount::bytes($progress['bytes_done']) }} of
                                    {{ Amount::bytes($progress['bytes']) }}</dd>
                                <dt>Speed</dt>
                                <dd>{{ $progress['now'] === null ? '…'
                                    : Amount::bytes((int) $progress['now']).'/s now' }}{{ $progress['average'] === null
                                        ? '' : ', '.Amount::bytes((int) $progress['average']).'/s on average' }}
                                </dd>
                            @endif
                            <dt>Elapsed</dt>
                            <dd>{{ Amount::seconds($deployment->started_at?->diffInSeconds(now())) }}{{
                                $progress['left'] === null || $progress['share'] === null ? ''
                                    : ', about '.Amount::seconds($progress['left']).' left' }}
                            </dd>
                        </dl>
                        <ol class="lanes" aria-label="Connections">
                            @foreach ($progress['lanes'] as $lane)
                                <li><code>{{ $lane['subject'] }}</code><span>{{ $lane['size'] > 0
                                    ? Amount::bytes($lane['bytes']).' of '.Amount::bytes($lane['size']) : '' }}</span>
                                </li>
                            @endforeach
                        </ol>
                    @endif
                    @if (
                        $deployment->called_off_at === null &&
                            in_array($deployment->stage, [null, 'surveying', 'backing_up', 'sending'], true))
                        <x-action to="/deployments/{{ $deployment->id }}/call-off">Cancel</x-action>
                    @elseif ($deployment->called_off_at !== null)
                        <p class="soft">Cancelled; what was begun is put back.</p>
                    @endif
                </section>
            @endif
            @if ($clashes !== [] && ! $done)
                <section class="sheet" aria-labelledby="clash">
                    <h2 id="clash">Differ only in case</h2>
                    @foreach (array_slice($clashes, 0, 5) as [$one, $other])
                        <p><code>{{ $one }}</code> in the package and <code>{{ $other }}</code> on the
                            server are two files to this server. Both will be there.</p>
                    @endforeach
                </section>
            @endif
            <section class="sheet" aria-labelledby="ba">
                <h2 id="ba">{{ $done ? 'How it went' : 'Before and after' }}</h2>
                <dl class="pairs">
                    @if ($deployment->state === 'proven')
                        <dt>Live</dt>
                        <dd><a href="{{ $site->liveLink() }}" target="_blank"
                                rel="noreferrer noopener">{{ $site->domain }}</a></dd>
                        <dt>Took</dt>
                        <dd>{{ Amount::seconds($deployment->seconds()) }}, ended
                            {{ $deployment->ended_at->format('j M H:i:s') }}</dd>
                    @elseif ($done)
                        <dt>Ended</dt>
                        <dd>{{ $deployment->ended_at?->format('j M H:i:s') }}</dd>
                    @else
                        <dt>Space used</dt>
                        <dd>
                            @if ($account->space_limit !== null)
                                {{ Amount::bytes($account->space_used) }} →
                                {{ Amount::bytes($account->space_used + array_sum(array_map(fn($item) => $item->bytes()
                                    - ($item->live->size ?? 0), $plan->files(Change::Add, Change::Replace))) -
                                        $counts['set_aside']['bytes']) }}
                                of {{ Amount::bytes($account->space_limit) }}
                            @else
                                not known
                            @endif
                        </dd>
                        <dt>Visitors see</dt>
                        <dd>{{ $touches === 0 ? 'no change'
                            : 'the old site, then the new one; names are given at the end, the start page last' }}
                        </dd>
                    @endif
                    <dt>To send</dt>
                    <dd>{{ Amount::bytes($plan->bytesToSend()) }} in {{ Amount::files($sends) }}</dd>
                    <dt>Signs in as</dt>
                    <dd><code>{{ $deployment->ftpUser?->login ?? $account->login }}</code>
                        @if ($deployment->ftpUser)
                            <br><span
                                class="soft">{{ $deployment->ftpUser->hasEnded()
                                    ? 'closed '.$deployment->ftpUser->closed_at->format('H:i:s').', sign-in refused'
                                        : ($deployment->ftpUser->ends === 'job' ? 'closed when this is done'
                                            : 'closes '.$deployment->ftpUser->endsWords()) }}</span>
                        @endif
                    </dd>
                    <dt>Way back</dt>
                    <dd>{{ $deployment->backup ? "one step, from backup number $deployment->backup_id"
                        : 'one step, from the backup taken first' }}
                    </dd>
                </dl>
                @if ($deployment->state === 'proven' && $touches > 0)
                    <x-action to="/deployments/{{ $deployment->id }}/undo">Undo this deployment</x-action>
                @endif
            </section>
            @if ($deployment->state === 'planned')
                <section class="sheet" aria-labelledby="first">
                    <h2 id="first">Backup first</h2>
                    @php($held = count(array_filter($plan->items, fn($item) => $item->live !== null
                        && $item->isFile())))
                    <p>{{ $held === 0 ? 'The document root is empty, which is noted.'
                        : Amount::files($held).' of this document root. What is not in the store yet is fetched, read back and compared before anything is replaced.' }}
                    </p>
                    <div class="row-acts"><x-action to="/deployments/{{ $deployment->id }}/start" main>Back up, then
                            replace</x-action><x-action to="/sites/{{ $site->id }}/backups">Back up only</x-action>
                    </div>
                </section>
            @endif
            @if ($deployment->backup)
                <section class="sheet" aria-labelledby="taken">
                    <h2 id="taken">Backup</h2>
                    <p>Number <a href="/backups?site={{ $site->id }}">{{ $deployment->backup_id }}</a>:
                        {{ Amount::files($deployment->backup->files) }},
                        {{ Amount::bytes($deployment->backup->bytes) }}. {{ $deployment->backup->readings() }}. The
                        stored copy was read back {{ $deployment->backup->verified_at->format('j M H:i:s') }}.</p>
                </section>
            @endif
            @if ($deployment->proofs)
                <section class="sheet" aria-labelledby="proofs">
                    <h2 id="proofs">Proof
                        <small>{{ ($asked = collect($deployment->proofs)->pluck('at')->filter()->first()) === null
                            ? 'fetched through the domain, past caches'
                                : "fetched from the host's own address $asked; the domain does not lead there yet"
                                    }}</small>
                    </h2>
                    <ol class="steps">
                        @foreach (array_slice($deployment->proofs, 0, 12) as $proof)
                            <li
                                class="{{ ($proof['gone'] ?? false ? $proof['error'] === null
                                    : $proof['status'] === 200) && $proof['matches'] !== false ? 'is-ok'
                                        : 'is-broken' }}">
                                <span>{{ parse_url($proof['url'], PHP_URL_PATH) }}</span><time>{{ $proof['status'] }}{{
                                    \App\Deployments\ProofWords::of($proof) }}</time>
                            </li>
                        @endforeach
                    </ol>
                    @if (count($deployment->proofs) > 12)
                        <p class="soft">and {{ count($deployment->proofs) - 12 }} more</p>
                    @endif
                    @if ($deployment->addresses > 0)
                        <p class="soft">
                            {{ count($deployment->proofs) }} of {{ $deployment->addresses }} addresses fetched.
                            @if ($deployment->read_back > 0)
                                {{ Amount::files($deployment->read_back) }} that no address shows
                                {{ $deployment->read_back === 1 ? 'was' : 'were' }} read back from the server.
                            @endif
                        </p>
                    @endif
                </section>
            @endif
            @if ($aside->isNotEmpty())
                <section class="sheet" aria-labelledby="held">
                    <h2 id="held">Set aside <small>held until
                            {{ $aside->min('held_until')->format('j M Y') }}</small></h2>
                    <ul>
                        @foreach ($aside->take(12) as $file)
                            <li><code>{{ $file->path }}</code> <span
                                    class="soft">{{ Amount::bytes((int) $file->bytes) }}</span></li>
                        @endforeach
                    </ul>
                    @if ($aside->count() > 12)
                        <p class="soft">and {{ $aside->count() - 12 }} more</p>
                    @endif
                    <x-action to="/deployments/{{ $deployment->id }}/restore">Restore</x-action>
                </section>
            @endif
        </div>
    </div>
</div>
