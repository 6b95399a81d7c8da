<form method="post" action="{{ $place->owner() }}/file-searches" class="search-form">
    @csrf
    <input type="hidden" name="at" value="@exactly($place->at)">
    <label for="search-name">Name</label>
    <input class="entry" id="search-name" name="name" value="@exactly($sought?->name ?? '')" maxlength="255"
        placeholder="any part of it, or *.html" autocomplete="off">
    <label for="search-text">Text in it</label>
    <input class="entry" id="search-text" name="text" value="@exactly($sought?->text ?? '')" maxlength="500"
        autocomplete="off" placeholder="a phone number, an address">
    <label class="check"><input type="checkbox" name="exact" value="1" @checked($sought?->exactCase)> in exactly these
        capitals</label>
    <details @if ($sought?->smallest !== null || $sought?->largest !== null || $sought?->from !== null
        || $sought?->until !== null) open @endif>
        <summary>Size and time</summary>
        <x-field for="search-smallest" label="Size in KB, from" class="row-acts">
            <input class="entry is-short" id="search-smallest" name="smallest" inputmode="numeric" pattern="\d{1,9}"
                value="{{ $sought?->smallest === null ? '' : intdiv($sought->smallest, 1000) }}">
            <label for="search-largest">to</label>
            <input class="entry is-short" id="search-largest" name="largest" inputmode="numeric" pattern="\d{1,9}"
                value="{{ $sought?->largest === null ? '' : intdiv($sought->largest, 1000) }}">
        </x-field>
        <label for="search-from">Changed, from</label>
        <input class="entry" id="search-from" name="from" type="date" value="{{ $dates[0] ?? '' }}">
        <label for="search-until">to</label>
        <input class="entry" id="search-until" name="until" type="date" value="{{ $dates[1] ?? '' }}">
        <label for="search-most">Look for text in files up to, in KB</label>
        <input class="entry is-short" id="search-most" name="text_up_to" inputmode="numeric" pattern="\d{1,4}"
            value="{{ intdiv($sought?->mostText ?? \Cellarium\Core\File\TextFile::MOST, 1000) }}">
    </details>
    <button class="act is-main" data-once>Find below {{ $place->at->name() ?: '/' }}</button>
</form>
