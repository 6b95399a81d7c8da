@php($sheet = $page->sheet)
<article class="client-sheet" aria-labelledby="sheet-title">
    <header>
        <svg class="agency" viewBox="0 0 100 2" preserveAspectRatio="none" aria-hidden="true">
            <rect width="100" height="2" fill="{{ $sheet->colour }}" />
        </svg>
        <p class="from"><b>{{ $sheet->agency }}</b> <span>for {{ $sheet->client }}</span></p>
        <h1 id="sheet-title">{{ $page->title() }}
            @if ($page->isOfOneSite())
                <small><x-domain :name="$page->brief($sheet->sites[0]->domain)" /></small>
            @endif
        </h1>
        <p class="period">{{ $page->period() }}</p>
    </header>
    <dl class="main-facts">
        @foreach ($page->main() as $fact)
            <div class="{{ $fact['isGood'] ? '' : 'is-bad' }}">
                <dt>{{ $fact['name'] }}</dt>
                <dd><b>{{ $fact['value'] }}</b> <span>{{ $fact['note'] }}</span></dd>
            </div>
        @endforeach
    </dl>
    <section aria-labelledby="changes">
        <h2 id="changes">What changed</h2>
        @if ($sheet->changes === [])
            <p>Nothing was changed in this time, by the agency or by anybody else whom a backup would have shown.</p>
        @else
            <table>
                <thead>
                    <tr>
                        <th scope="col">When</th>
                        <th scope="col">What</th>
                        <th scope="col">By</th>
                        <th scope="col">Files</th>
                        <th scope="col">How it ended</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($page->changes() as $change)
                        <tr>
                            <td data-label="when" class="when">{{ $page->when($change->at, 'j M Y') }}
                                <br>{{ $page->when($change->at, 'H:i') }}</td>
                            <td data-label="what">
                                @unless ($page->isOfOneSite())
                                    <b><x-domain :name="$page->brief($change->site)" /></b><br>
                                @endunless
                                <bdi>{{ $page->brief($change->what) }}</bdi>
                                @if ($change->backup !== null)
                                    <br><span class="soft">Backup before: {{ $page->backupOf($change) }}</span>
                                @endif
                            </td>
                            <td data-label="by">{{ $page->by($change) }}</td>
                            <td data-label="files">{{ $change->files() }}</td>
                            <td data-label="how it ended">
                                <b class="{{ $change->isGood ? 'good' : 'bad' }}">{{ $change->outcome }}</b>
                                @if ($change->proof !== null)
                                    <br>{{ $change->proof->sentence() }}
                                @endif
                                @if ($change->outage !== null)
                                    <br><span class="soft">Without a site: {{ $change->outage->sentence() }}</span>
                                @endif
                            </td>
                        </tr>
                    @endforeach
                </tbody>
            </table>
            @if ($page->moreChanges() !== '')
                <p class="soft">{{ $page->moreChanges() }} All of them stand in the file of this sheet.</p>
            @endif
        @endif
    </section>
    <section aria-labelledby="access">
        <h2 id="access">Who had access</h2>
        <table>
            <thead>
                <tr>
                    <th scope="col">Login</th>
                    <th scope="col">Reaches</th>
                    <th scope="col">Opened</th>
                    <th scope="col">Closed</th>
                    <th scope="col">Proof</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($page->accesses() as $access)
                    <tr>
                        <td data-label="login"><x-path :path="$page->brief($access->login)" />
                            @if ($access->purpose !== '')
                                <br><span class="soft"><bdi>{{ $page->brief($access->purpose) }}</bdi></span>
                            @endif
                        </td>
                        <td data-label="reaches"><x-path :path="$page->brief($access->reaches)" /></td>
                        <td data-label="opened">{{ $page->when($access->openedAt, 'j M Y') }}
                            <br><span class="soft">{{ $page->openedBy($access) }}</span></td>
                        <td data-label="closed">{{ $access->isOpen() ? 'open' : $page->when($access->closedAt) }}</td>
                        <td data-label="proof">{{ $access->proof() }}</td>
                    </tr>
                @endforeach
            </tbody>
        </table>
        @if ($page->moreAccess() !== '')
            <p class="soft">{{ $page->moreAccess() }} All of them stand in the file of this sheet.</p>
        @endif
    </section>
    <section aria-labelledby="backups">
        <h2 id="backups">What it rests on</h2>
        <table>
            <thead>
                <tr>
                    <th scope="col">Site</th>
                    <th scope="col">Backups promised</th>
                    <th scope="col">Taken in this time</th>
                    <th scope="col">Last, read back</th>
                    <th scope="col">Last rehearsed</th>
                    <th scope="col">Pages last compared</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($page->sites() as $site)
                    <tr>
                        <td data-label="site"><x-domain :name="$page->brief($site->domain)" /></td>
                        <td data-label="backups promised">{{ $site->promise }}
                            @if ($site->isLate)
                                <b class="bad">late</b>
                            @endif
                        </td>
                        <td data-label="taken in this time">{{ $site->backups }}</td>
                        <td data-label="last, read back">{{ $page->when($site->lastBackupAt) }}</td>
                        <td data-label="last rehearsed">{{ $page->when($site->rehearsedAt, 'j M Y') }}</td>
                        <td data-label="pages last compared">{{ $page->when($site->liveProvenAt, 'j M Y') }}</td>
                    </tr>
                @endforeach
            </tbody>
        </table>
        @if ($page->moreSites() !== '')
            <p class="soft">{{ $page->moreSites() }} All of them stand in the file of this sheet.</p>
        @endif
    </section>
    <footer>
        <p>Made by {{ $sheet->madeBy }}, {{ $page->when($sheet->madeAt) }}, as the record of {{ $sheet->agency }} stood
            at line {{ number_format($sheet->recordNumber) }}. Its file is signed (Ed25519); who has the key
            <code>{{ $page->signed->key }}</code> from {{ $sheet->agency }} can check that nothing in it was
            altered.</p>
    </footer>
</article>
