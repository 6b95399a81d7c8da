@use('App\Models\BackupRule')
<x-page :title="'Backups of '.$site->domain" place="Backups">
    <x-slot:where><x-site-where :site="$site" here="rule for backups" /></x-slot:where>
    <section class="sheet" aria-labelledby="rule">
        <h1 id="rule">Rule for backups <small>how often they are taken and rehearsed, and which stay</small></h1>
        <form method="post" action="/sites/{{ $site->id }}/backup-rule" class="pairs-form"
            hx-get="/sites/{{ $site->id }}/backup-rule" hx-trigger="change delay:100ms" hx-target="#retention"
            hx-swap="outerHTML">
            @csrf
            <x-field for="for" label="Holds for">
                <select class="entry" id="for" name="for">
                    <option value="site" @selected($rule->site_id !== null)>this site</option>
                    @if ($site->owner()->group !== '')
                        <option value="group" @selected($rule->site_id === null && $rule->group !== null)>all of the
                            group {{ $site->owner()->group }}, but for sites with their own</option>
                    @endif
                    <option value="all" @selected($rule->isOfAll() && $rule->exists)>all sites, but for groups and
                        sites with their own</option>
                    @if ($rule->site_id !== null)
                        <option value="none">not this site any more: the common rule again</option>
                    @endif
                </select>
            </x-field>
            <x-field for="hours" label="A backup every">
                <input class="entry is-short" id="hours" name="hours" type="number" min="1" max="8760"
                    required value="@exactly(old('hours', $rule->hours))"> <span class="soft">hours; 24 is a day, 168 a
                    week. What breaks this stands on Today.</span>
            </x-field>
            <x-field for="quiet_from" label="Quiet hours">
                <input class="entry is-short" id="quiet_from" name="quiet_from" type="time" required
                    value="@exactly(old('quiet_from', BackupRule::clock($rule->quiet_from)))"> to
                <input class="entry is-short" id="quiet_until" name="quiet_until" type="time" required
                    aria-label="Quiet until"
                    value="@exactly(old('quiet_until', BackupRule::clock($rule->quiet_until)))">
                <p class="soft">from a day on, backups are taken within these, the sites of a host one after the
                    other</p>
            </x-field>
            <x-field for="zone" label="Time zone">
                <select class="entry" id="zone" name="zone">
                    @foreach (timezone_identifiers_list() as $zone)
                        <option @selected(old('zone', $rule->zone) === $zone)>{{ $zone }}</option>
                    @endforeach
                </select>
                <p class="soft">of the quiet hours, and of the days, weeks and months below</p>
            </x-field>
            @foreach (['hourly' => 'hours', 'daily' => 'days', 'weekly' => 'weeks', 'monthly' => 'months',
                'yearly' => 'years'] as $field => $unit)
                <label for="{{ $field }}">Keep {{ $field }}</label>
                <div><input class="entry is-short" id="{{ $field }}" name="{{ $field }}" type="number" min="0"
                        max="1000" required value="@exactly(old($field, $rule->getAttribute($field)))">
                    @if ($loop->first)
                        <span class="soft">the newest of each of so many {{ $unit }} that have any</span>
                    @else
                        <span class="soft">{{ $unit }}</span>
                    @endif
                </div>
            @endforeach
            <x-field for="rehearse_days" label="Rehearse every">
                <input class="entry is-short" id="rehearse_days" name="rehearse_days" type="number" min="1" max="1000"
                    value="@exactly(old('rehearse_days', $rule->rehearse_days))"> <span class="soft">days; left empty,
                    no rehearsal is promised</span>
            </x-field>
            <div class="side">In any case</div>
            <div class="soft">stay the only backup of a site, pinned ones, and the one before each deployment, restore
                or change by hand for {{ config('cellarium.way_back_days') }} days, so that each can be undone, whatever
                the numbers say. What was taken before a change by hand takes no other one’s place in them.</div>
            <div class="side">With these numbers</div>
            <div>@include('parts.retention')</div>
            <div></div>
            <div><button class="act is-main" data-once>Save the rule</button></div>
        </form>
    </section>
</x-page>
