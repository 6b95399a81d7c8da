@use('Cellarium\Core\Words\Count')
@use('App\Text\Amount')
<x-page :title="($place->at->name() ?: '/').' · files'" place="Accounts" wide>
    <x-slot:where>@include('parts.files-where')</x-slot:where>
    <header class="head files-head">
        <div>
            <h1 class="breakable">@if ($place->at->equals($place->base))Files @else{{ $place->at->name() }}@endif
                @if ($table->known)
                    <small>{{ Amount::files($table->files) }}, {{ Count::words($table->folders, 'folder')
                        }}@if ($table->hidden > 0), {{ $table->hidden }}
                            hidden @endif
                    </small>
                @endif
            </h1>
            @if ($place->site?->destinations->isNotEmpty())
                <p class="destinations"><span class="soft">Destinations</span>
                    @foreach ($place->site->destinations as $destination)
                        @if ($place->at($destination->path()) !== null)
                            <a class="act is-quiet"
                                href="{{ $place->url($destination->path()) }}">{{ $destination->name }}</a>
                        @endif
                    @endforeach
                </p>
            @endif
        </div>
        <div class="row-acts">
            @leads($place->owner().'/file-searches', 'POST')
                <details class="drop" data-act="find">
                    <summary class="act">Find</summary>
                    <div class="drop-body">@include('parts.file-search-form', ['sought' => null])</div>
                </details>
            @endleads
            @if ($place->site !== null)
                <x-action :to="$place->owner().'/rights-checks'" data-act="check">Check permissions</x-action>
            @endif
        @leads($place->owner().'/file-changes', 'POST')
            @if ($place->site !== null)
                @include('parts.files-upload')
            @endif
            <details class="drop" data-act="folder">
                <summary class="act">New folder</summary>
                <form method="post" action="{{ $place->owner() }}/file-changes" class="drop-body">
                    @csrf
                    <input type="hidden" name="do" value="new_folder">
                    <input type="hidden" name="at" value="@exactly($place->at)">
                    <label for="new-folder">Name</label>
                    <input class="entry" id="new-folder" name="called" required maxlength="200" autocomplete="off">
                    @if ($place->addressOf($place->at) !== null)
                        <label class="check"><input type="checkbox" name="private" value="1"
                                aria-describedby="private-note"> for private downloads</label>
                        <small id="private-note">Its name gets an end that nobody guesses. Whoever is given the address
                            can fetch what lies in it, until you close it.</small>
                    @endif
                    <button class="act is-main" data-once>Make it</button>
                </form>
            </details>
        @endleads
        </div>
    </header>
    @if ($last !== null)
        <div class="word {{ $last->state === \App\Models\ChangeState::Done ? 'is-done' : 'is-trouble' }} last-change"
            role="status">
            <span><a href="/file-changes/{{ $last->id }}">{{ $last->title }}</a>:
                {{ $last->state === \App\Models\ChangeState::Done ? 'done and confirmed by the server'
                    : $last->state->label() }}{{ $last->undone_at === null ? '' : ', undone since' }},
                {{ Amount::ago($last->ended_at) }}. @words($last->trouble ?? '')
                @if ($last->proof !== null)
                    <b class="{{ $last->proof['ok'] ? '' : 'is-now-text' }}">{{ $last->proof['words'] }}</b>
                @endif
            </span>
            @if ($last->canUndo() && $last->action !== \App\Models\FileAction::Undo)
                <x-action to="/file-changes/{{ $last->id }}/undo">Undo</x-action>
            @endif
        </div>
    @endif
    @if ($last?->ended_at?->isAfter(now()->subMinutes(3)) && \App\Files\VisitorsPage::isKept($last))
        @include('parts.file-page', ['change' => $last])
    @endif
    <div class="files-two">
        @include('parts.files-table')
        @include('parts.file-chosen')
    </div>
    @include('parts.files-keys')
    <x-slot:scripts>
        <script src="/vendor/tus-js-client-4.3.1.min.js" defer></script>
        @foreach (['upload', 'look', 'files'] as $script)
            <x-script :name="$script" />
        @endforeach
    </x-slot:scripts>
</x-page>
