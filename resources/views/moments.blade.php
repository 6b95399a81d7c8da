<x-page :title="'From A to B: '.$site->domain" place="Backups" wide>
    <x-slot:where><x-site-where :site="$site" here="from A to B"><x-slot:facts><a
        href="/backups?site={{ $site->id }}">its backups</a></x-slot:facts></x-site-where></x-slot:where>
    <section class="sheet" aria-labelledby="moments">
        <h1 id="moments">From A to B
            @if ($b !== null)
                <small>files that differ: {{ number_format(count($differences)) }}</small>
            @endif
        </h1>
        <form method="get" class="row-acts">
            @foreach (['a' => $a, 'b' => $b] as $name => $chosen)
                <label for="{{ $name }}">{{ strtoupper($name) }}</label>
                <select class="entry is-choice" id="{{ $name }}" name="{{ $name }}">
                    @foreach ($backups as $backup)
                        <option value="{{ $backup->id }}" @selected($chosen?->id === $backup->id)>{{
                            $backup->verified_at->shown('j M Y H:i') }}, {{ $backup->why() }}</option>
                    @endforeach
                </select>
            @endforeach
            <button class="act">Compare</button>
        </form>
        @if ($backups->count() < 2)
            <p class="calm">There are no two backups to compare yet.</p>
        @endif
        @if ($isByMoments && $a !== null && $b !== null)
            <p class="soft">What was there at the moments you chose is known from the last backup before each, or the
                oldest there is:
                {{ $a->verified_at->shown('j M Y H:i') }} and {{ $b->verified_at->shown('j M Y H:i') }}.</p>
        @endif
        @if ($a !== null && $a->is($b))
            <p class="calm">No backup was taken between the two. Take one now, or choose moments further apart.</p>
        @endif
        @if ($differences === [] && $a !== null && $b !== null && ! $a->is($b))
            <p class="calm">Nothing differs between the two.</p>
        @endif
        @if ($differences !== [])
            <form method="post" action="/backups/{{ $a->id }}/restore">
                @csrf
                <input type="hidden" name="part" value="1">
                <x-table caption="Files that differ between A and B">
                    <thead>
                        <tr>
                            <th scope="col" class="tick"></th>
                            <th scope="col">File</th>
                            <th scope="col">A → B</th>
                            <th scope="col">Who and when</th>
                        </tr>
                    </thead>
                    <tbody>
                        @foreach (array_slice($differences, 0, \App\Backups\TwoMoments::MOST) as $one)
                            <tr>
                                <td>
                                    @if ($one->before !== null)
                                        <input type="checkbox" name="paths[]" value="{{ $one->path }}"
                                            aria-label="{{ $one->path }}">
                                    @endif
                                </td>
                                <td><a href="/sites/{{ $site->id }}/moments/text?a={{ $a->id }}&b={{ $b->id
                                    }}&path={{ rawurlencode($one->path) }}"><x-path :path="$one->path" /></a></td>
                                <td class="when" data-label="A to B">{{ $one->sizes() }}</td>
                                <td>
                                    <x-tag :tone="$one->tone()">{{ $one->by() }}</x-tag>
                                    @if ($one->who !== null)
                                        <x-link :to="$one->who['page']">{{ $one->words() }}</x-link>
                                    @else
                                        {{ $one->words() }}
                                    @endif
                                </td>
                            </tr>
                        @endforeach
                    </tbody>
                </x-table>
                @if (count($differences) > \App\Backups\TwoMoments::MOST)
                    <p class="soft">and {{ number_format(count($differences) - \App\Backups\TwoMoments::MOST) }} more;
                        cellarium:diff lists them all.</p>
                @endif
                <div class="row-acts">
                    @leads("/backups/$a->id/restore", 'POST')
                        <button class="act is-main" data-once>Restore what is marked as it was at A</button>
                    @endleads
                    @leads("/backups/$a->id/zip")
                        <button class="act" formaction="/backups/{{ $a->id }}/zip">Download it as it was at A</button>
                    @endleads
                </div>
            </form>
        @endif
    </section>
</x-page>
