@php($name = $draft->path()->name())
<x-page :title="'Save '.$name" place="Accounts" wide>
    <x-slot:where>@include('parts.files-where')</x-slot:where>
    <section class="sheet" aria-labelledby="review">
        <h1 id="review" class="breakable">Save {{ $name }} <small>{{ $review['label'] }}, as it was</small></h1>
        @if ($review['isSame'])
            <p class="calm">Nothing is different from what was opened, so there is nothing to save.</p>
        @else
            @if ($review['barred'] !== null)
                <p class="word is-trouble" role="alert">{{ $review['barred'] }}</p>
            @endif
            @if ($review['stop'] !== null)
                <p class="word is-trouble" role="alert">@words($review['stop'])</p>
            @endif
            @if ($review['mistakes'] !== [])
                <div class="word is-soon">
                    <p><b>Not there before, and most likely a mistake:</b></p>
                    <ul>
                        @foreach ($review['mistakes'] as $mistake)
                            <li>
                                @if ($mistake->line !== null)
                                    Line {{ $mistake->line }}:
                                @endif
                                {{ $mistake->sentence }}
                            </li>
                        @endforeach
                    </ul>
                </div>
            @endif
            @if ($review['difference'] === null)
                <p class="calm">The text is too long to be laid side by side.</p>
            @elseif ($review['difference']->differOnlyInLineEnds)
                <p class="calm">The lines are the same; only the way the last one ends differs.</p>
            @else
                @include('parts.side-by-side', [
                    'texts' => $review['difference'],
                    'heads' => ['as opened', 'to be saved'],
                ])
            @endif
            <p class="soft">Before it is saved, the file on the server is compared with what you opened, and what it
                holds is kept here for {{ config('cellarium.set_aside_days') }} days.</p>
        @endif
        <form method="post" action="/file-drafts/{{ $draft->id }}" class="row-acts">
            @csrf
            <input type="hidden" name="files" value="{{ $place->site === null ? 'account' : 'site' }}">
            @if (! $review['isSame'] && $review['barred'] === null && $review['stop'] === null)
                <button class="act is-main" name="do" value="save" data-once>Save to the server</button>
            @elseif (! $review['isSame'] && $review['barred'] === null)
                @can(\Cellarium\Core\People\Permission::OverruleInspection->value)
                    <label for="reason">Save it all the same, because</label>
                    <input class="entry" id="reason" name="reason" required maxlength="500" autocomplete="off">
                    <button class="act" name="do" value="save" data-once>Save to the server</button>
                @endcan
            @endif
            <a class="act" href="{{ $place->editUrl($draft->path()) }}">Go on editing</a>
        </form>
    </section>
</x-page>
